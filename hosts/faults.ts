import type { HttpBindings } from '@hono/node-server';
import type { MiddlewareHandler } from 'hono';
import { setTimeout as wait } from 'node:timers/promises';
import type { Store } from './state.ts';

/** Spoils answers as the control page says. Counted, not drawn: a run can be repeated. */
export function faults(store: Store): MiddlewareHandler<{ Bindings: HttpBindings }> {
  let calls = 0;
  let writes = 0;
  let counted = '';
  const isOneIn = (n: number, count: number) => n > 0 && count % n === 0;
  return async (c, next) => {
    // What a browser asks beforehand is not the call itself.
    if (c.req.method === 'OPTIONS') return next();
    const { slow, failOneIn, loseOneIn, busyOneIn, retryAfter } = store.state.faults;
    // New faults are counted from their beginning, whatever was called before.
    const set = [failOneIn, loseOneIn, busyOneIn].join();
    if (set !== counted) [calls, writes, counted] = [0, 0, set];
    calls++;
    const isWrite = c.req.method !== 'GET' && c.req.method !== 'HEAD';
    if (isWrite) writes++;
    if (slow) await wait(slow);
    if (isOneIn(busyOneIn, calls)) {
      return c.text('Too many requests. Try again later.', 429, {
        'Retry-After': String(retryAfter)
      });
    }
    if (isOneIn(failOneIn, calls)) return c.text('The server made a mistake.', 500);
    await next();
    if (isWrite && isOneIn(loseOneIn, writes)) {
      c.env.outgoing.destroy();
      c.res = new Response(null, { headers: { 'x-hono-already-sent': 'true' } });
    }
  };
}
