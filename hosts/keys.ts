import type { Context } from 'hono';
import type { World } from './context.ts';

/** The rights of the key that a call brings; null where there is none, or it is not known or over. */
export function scopesOf(
  c: Context,
  world: World,
  keys: Readonly<Record<string, string[]>>
): string[] | null {
  return scopesOfHeader(c.req.header('authorization'), world, keys);
}

export function scopesOfHeader(
  authorization: string | null | undefined,
  world: World,
  keys: Readonly<Record<string, string[]>>
): string[] | null {
  const key = /^Bearer (.+)$/i.exec(authorization ?? '')?.[1];
  return key && !world.store.state.faults.keyExpired ? (keys[key] ?? null) : null;
}
