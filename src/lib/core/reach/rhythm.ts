import { localHours, weekdayOfDay } from './day.ts';
import type { VisitHours } from './reachRow.ts';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const DAYS = 7;
const HOURS = 24;

/** When the audience is there. */
export interface Rhythm {
  /** By weekday (Monday first) and local hour: visits an hour, as a share of the busiest; each from 0 to 1. */
  shares: readonly (readonly number[])[];
  /** The same: visits behind it. */
  counts: readonly (readonly number[])[];
  visits: number;
  /** Days that were looked at. */
  days: number;
}

/** Fewer visits or days than that say nothing of hours. */
const FEWEST_VISITS = 168;
const FEWEST_DAYS = 14;

/** Visits that an hour of a weekday needs to weigh as much as what its weekday and its hour say. */
const PRIOR = 12;

/**
 * The hours of a week at which visits came. An hour of a weekday with few of them leans on what its weekday and its hour
 * of the day say together (a product of both, weighed as a Gamma prior is).
 * @param zone IANA name of the time zone
 * @returns null where there are too few visits or days
 */
export function rhythmOf(rows: readonly VisitHours[], zone: string): Rhythm | null {
  const localHour = localHours(zone);
  const counts = Array.from({ length: DAYS }, () => new Array<number>(HOURS).fill(0));
  const seen = Array.from({ length: DAYS }, () => new Array<number>(HOURS).fill(0));
  const known = new Set<number>();
  for (const { day, hours } of rows) {
    // Several places may tell of the same hour: it passed once.
    const isNew = !known.has(day);
    known.add(day);
    for (const [i, count] of hours.entries()) {
      const local = localHour(day * DAY + i * HOUR);
      const weekday = weekdayOfDay(local.day);
      counts[weekday]![local.hour]! += count;
      if (isNew) seen[weekday]![local.hour]!++;
    }
  }
  const visits = sum(counts.flat());
  if (visits < FEWEST_VISITS || known.size < FEWEST_DAYS) return null;

  const weekdays = counts.map((row, d) => sum(row) / Math.max(1, sum(seen[d]!)));
  const hours = Array.from(
    { length: HOURS },
    (_, h) => sum(counts.map((row) => row[h]!)) / Math.max(1, sum(seen.map((row) => row[h]!)))
  );
  const mean = visits / Math.max(1, sum(seen.flat()));
  const rates = counts.map((row, d) =>
    row.map((count, h) => {
      const expected = (weekdays[d]! * hours[h]!) / mean;
      // So many times this hour would have to pass for as many visits as the prior weighs.
      const times = PRIOR / Math.max(mean, Number.EPSILON);
      return (count + expected * times) / (seen[d]![h]! + times);
    })
  );
  const most = Math.max(...rates.flat());
  return {
    shares: rates.map((row) => row.map((rate) => (most > 0 ? rate / most : 0))),
    counts,
    visits,
    days: known.size
  };
}

const sum = (numbers: readonly number[]): number => numbers.reduce((total, n) => total + n, 0);
