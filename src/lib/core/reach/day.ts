import { DateTime } from 'luxon';
import { z } from 'zod';

const DAY = 86_400_000;
const QUARTER = 900_000;

/** Days since 1 January 1970, of a local calendar: what figures are kept by. */
export type Day = number;

/** Days of this century and some around it: what is further away is damaged, and would be gone through day by day. */
export const daySchema = z.number().int().min(-20_000).max(60_000);

/** @param date as `2026-11-26` */
export const dayOfDate = (date: string): Day => Math.round(Date.parse(`${date}T00:00:00Z`) / DAY);
export const dateOfDay = (day: Day): string => new Date(day * DAY).toISOString().slice(0, 10);

/** Monday is 0, as weekdays of days are. */
export const weekdayOfDay = (day: Day): number => (((day + 3) % 7) + 7) % 7;

/** The local hour that a moment lies in. */
export interface LocalHour {
  day: Day;
  /** 0 to 23. */
  hour: number;
}

/**
 * Finds the local hour of moments. Zones are moved by quarters of an hour, and only there: what was found is kept.
 * @param zone IANA name of the time zone
 */
export function localHours(zone: string): (at: number) => LocalHour {
  const known = new Map<number, LocalHour>();
  return (at) => {
    const quarter = Math.floor(at / QUARTER);
    const found = known.get(quarter);
    if (found) return found;
    const moment = DateTime.fromMillis(quarter * QUARTER, { zone });
    const local = { day: dayOfDate(moment.toISODate() ?? ''), hour: moment.hour };
    known.set(quarter, local);
    return local;
  };
}

export const dayOf = (at: number, zone: string): Day =>
  dayOfDate(DateTime.fromMillis(at, { zone }).toISODate() ?? '');
