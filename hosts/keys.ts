import type { Context } from 'hono';
import type { World } from './context.ts';

/** Days that a key is good for, from the beginning of the world. */
const KEY_DAYS = 180;

/** When the keys of this world end; milliseconds. */
export const keysEnd = (world: World): number => world.store.state.began + KEY_DAYS * 86_400_000;

/** What a key may do and until when, as token introspection tells it (RFC 7662). */
export const tokenFacts = (world: World, scopes: readonly string[]) => ({
  active: true,
  scope: scopes.join(' '),
  exp: Math.floor(keysEnd(world) / 1000)
});

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
  const isOver = world.store.state.faults.keyExpired || world.now() >= keysEnd(world);
  return key && !isOver ? (keys[key] ?? null) : null;
}
