import { json, type Handle, type ServerInit } from '@sveltejs/kit';
import { dev } from '$app/environment';
import { HEADERS } from '$lib/server/headers.ts';
import { rehearsalOrigin, setup } from '$lib/server/policy.ts';
import { sessionOf } from '$lib/server/session.ts';
import { isOurName, setupProblem, Visitors } from '$lib/server/visitors.ts';

export const init: ServerInit = () => {
  const problem = dev ? '' : setupProblem(setup());
  if (problem) throw new Error(`Swift Twin is not started. ${problem}`);
};

const visitors = new Visitors();
/** Bytes of a body. */
const LARGEST_BODY = 8_000_000;

/** Only calls by our own name, of those who may, and not more of them than people make. */
export const handle: Handle = async (given) => {
  const { request, getClientAddress, url } = given.event;
  const { headers } = request;
  const isCall = url.pathname.startsWith('/api/');
  if (!dev && !isOurName(headers.get('host'), setup()))
    return new Response('This server has another name.', { status: 421 });
  if (Number(headers.get('content-length') ?? 0) > LARGEST_BODY)
    return json({ problem: { kind: 'too-large' } }, { status: 413 });
  const session = await sessionOf(given.event.cookies, setup());
  given.event.locals.session = session;
  if (setup().password && !session.hasEntered && url.pathname !== '/enter')
    return isCall
      ? json({ problem: { kind: 'signed-out' } }, { status: 401 })
      : new Response(null, { status: 303, headers: { location: '/enter' } });
  if (!isCall) return protectedAnswer(given);
  const leave = visitors.enter(getClientAddress());
  if (!leave)
    return json({ problem: { kind: 'busy' } }, { status: 429, headers: { 'retry-after': '10' } });
  try {
    return await protectedAnswer(given);
  } finally {
    leave();
  }
};

/**
 * Lets the page frame and show what comes from linked places, and only from those. Which they are
 * the browser tells (`/api/origins`), and its session keeps.
 */
async function protectedAnswer({ event, resolve }: Parameters<Handle>[0]): Promise<Response> {
  const response = await resolve(event);
  const policy = response.headers.get('content-security-policy');
  if (
    policy &&
    response.headers.get('content-type')?.startsWith('text/html') &&
    !policy.includes("default-src 'none'")
  ) {
    const linked = event.locals.session.origins ?? [];
    const origins = [
      ...new Set([...linked, ...(rehearsalOrigin() ? [rehearsalOrigin()] : [])])
    ].join(' ');
    // Files go to channels straight from the browser, by tus.
    const widened = policy.replace("connect-src 'self'", `connect-src 'self' ${origins}`);
    response.headers.set(
      'content-security-policy',
      `${widened}; frame-src 'self' ${origins}; media-src 'self' blob: ${origins}; img-src 'self' data: blob: ${origins}`
    );
  }
  for (const [name, value] of Object.entries(HEADERS)) response.headers.set(name, value);
  return response;
}
