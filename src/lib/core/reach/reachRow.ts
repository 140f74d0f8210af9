import { z } from 'zod';
import { counterSchema, figuresSchema } from './figures.ts';
import { curveSchema, type Curve } from './curve.ts';
import type { Day } from './day.ts';

/** Visits by day, of one source. `days` rise, and `counts` belong to them. */
export const visitsByDaySchema = z
  .object({ days: z.array(z.number().int()), counts: z.array(z.number().int().nonnegative()) })
  .refine(({ days, counts }) => days.length === counts.length);
export type VisitsByDay = z.infer<typeof visitsByDaySchema>;

export const reachKindSchema = z.enum(['video', 'post', 'update']);
export type ReachKind = z.infer<typeof reachKindSchema>;

/** What came of one video, post or update. Nothing is kept of who was there. */
export const reachRowSchema = z.object({
  /** Of its item; of an update, the key of its outbox entry. */
  id: z.string(),
  placeId: z.string(),
  kind: reachKindSchema,
  counters: z.partialRecord(counterSchema, curveSchema),
  /** By where visitors came from (`visitSource.ts`). */
  visits: z.record(z.string(), visitsByDaySchema),
  /** Average of its ratings, from 0 to 1; null where there are none. */
  stars: z.number().min(0).max(1).nullable(),
  /** ISO 8601. */
  changed: z.string()
});
export type ReachRow = z.infer<typeof reachRowSchema>;

/** The last totals of an item, to be looked through together. */
export const reachTotalsSchema = z.object({
  id: z.string(),
  placeId: z.string(),
  kind: reachKindSchema,
  totals: figuresSchema
});
export type ReachTotals = z.infer<typeof reachTotalsSchema>;

/** What the items of a kind at a place gained together on a day. */
export interface ReachDay {
  /** Place, kind and day. */
  id: string;
  placeId: string;
  kind: ReachKind;
  day: Day;
  gained: Partial<Record<z.infer<typeof counterSchema>, number>>;
}

/** Visits of a place in the hours of a day, both in UTC: a user may move to another time zone. */
export const visitHoursSchema = z.object({
  /** Place and day. */
  id: z.string(),
  placeId: z.string(),
  day: z.number().int(),
  hours: z.array(z.number().int().nonnegative()).length(24)
});
export type VisitHours = z.infer<typeof visitHoursSchema>;

/** Sources of one item that are told apart; the rest is one. */
const MOST_SOURCES = 100;
export const OTHER_SOURCES = 'other';

/** Visits of several sources with those of one more day. */
export function addVisits(
  visits: Record<string, VisitsByDay>,
  source: string,
  on: Day,
  count: number
): void {
  const isKnown = Object.hasOwn(visits, source);
  const name = isKnown || Object.keys(visits).length < MOST_SOURCES ? source : OTHER_SOURCES;
  const { days, counts } = (visits[name] ??= { days: [], counts: [] });
  let at = days.length;
  while (at > 0 && days[at - 1]! >= on) at--;
  if (days[at] === on) counts[at] = counts[at]! + count;
  else {
    days.splice(at, 0, on);
    counts.splice(at, 0, count);
  }
}

/** Visits of all sources together, by day. */
export function visitsByDay(visits: ReachRow['visits']): Map<Day, number> {
  const sum = new Map<Day, number>();
  for (const { days, counts } of Object.values(visits))
    for (const [i, on] of days.entries()) sum.set(on, (sum.get(on) ?? 0) + (counts[i] ?? 0));
  return sum;
}

/** Visits by source, those with most first. */
export const visitsBySource = (
  visits: ReachRow['visits'],
  from: Day = -Infinity
): { source: string; count: number }[] =>
  Object.entries(visits)
    .map(([source, { days, counts }]) => ({
      source,
      count: counts.reduce((sum, n, i) => (days[i]! >= from ? sum + n : sum), 0)
    }))
    .filter(({ count }) => count > 0)
    .sort((a, b) => b.count - a.count || (a.source < b.source ? -1 : 1));

/** Visits as a curve of their total, like that of a counter. */
export function visitsCurve(visits: ReachRow['visits']): Curve | null {
  const sums = [...visitsByDay(visits)].sort(([a], [b]) => a - b);
  if (sums.length === 0) return null;
  let total = 0;
  return {
    days: sums.map(([on]) => on),
    totals: sums.map(([, count]) => (total += count)),
    until: sums.at(-1)![0]
  };
}
