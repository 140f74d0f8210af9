import { env } from '$env/dynamic/private';
import type { Policy } from './addresses.ts';

/** The origin of the rehearsal hosts, when this server runs beside them, or empty. */
export const rehearsalOrigin = (): string => env.REHEARSAL_ORIGIN ?? '';

export const outsidePolicy = (): Policy => ({
  excepted: new Set(rehearsalOrigin() ? [rehearsalOrigin()] : [])
});
