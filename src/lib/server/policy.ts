import { env } from '$env/dynamic/private';
import type { Policy } from './addresses.ts';
import type { Setup } from './visitors.ts';

/** The origin of the rehearsal hosts, when this server runs beside them, or empty. */
export const rehearsalOrigin = (): string => env.REHEARSAL_ORIGIN ?? '';

/** Where this server listens, by what name, and what it asks of its visitors. */
export const setup = (): Setup => ({
  origin: env.ORIGIN ?? '',
  host: env.HOST ?? '0.0.0.0',
  password: env.PASSWORD ?? ''
});

export const outsidePolicy = (): Policy => ({
  excepted: new Set(rehearsalOrigin() ? [rehearsalOrigin()] : [])
});
