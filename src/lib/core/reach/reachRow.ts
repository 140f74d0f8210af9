import { z } from 'zod';
import { counterSchema, type Counter, type Figures } from './figures.ts';
import { curveSchema, lastTotal, type Curve } from './curve.ts';
import { daySchema, type Day } from './day.ts';

/** Visits by day, of one source. `days` rise, and `counts` belong to them. */
export const visitsByDaySchema = z
  .object({ days: z.array(daySchema), counts: z.array(z.number().int().nonnegative()) })
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
export interface KeptTotals {
  id: string;
  placeId: string;
  kind: ReachKind;
  totals: Figures;
  /** The last day on which its place told of it; null where only visits or a table did. */
  read: Day | null;
}

/** What the items of a kind at a place gained together on a day. */
export interface ReachDay {
  /** Place, kind and day. */
  id: string;
  placeId: string;
  kind: ReachKind;
  day: Day;
  gained: Partial<Record<Counter, number>>;
}

/** Visits of a place in the hours of a day, both in UTC: a user may move to another time zone. */
export const visitHoursSchema = z.object({
  /** Place and day. */
  id: z.string(),
  placeId: z.string(),
  day: daySchema,
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

export const emptyRow = (id: string, placeId: string, kind: ReachKind): ReachRow => ({
  id,
  placeId,
  kind,
  counters: {},
  visits: {},
  stars: null,
  changed: ''
});

/** Totals of all that is counted of an item. */
export function totalsOf({ counters, visits }: ReachRow): Figures {
  const told = (Object.entries(counters) as [Counter, Curve][]).map(
    ([counter, curve]) => [counter, Math.max(0, Math.round(lastTotal(curve)))] as const
  );
  const seen = visitsCurve(visits);
  return { ...Object.fromEntries(told), ...(seen && { visits: lastTotal(seen) }) };
}

/** Gains of many items by place, kind and day. */
export class DaySums {
  readonly #sums = new Map<string, ReachDay>();

  /** @param more of one item, by day */
  add(
    of: Pick<ReachRow, 'placeId' | 'kind'>,
    counter: Counter,
    more: Iterable<[Day, number]>
  ): void {
    const { placeId, kind } = of;
    for (const [day, gained] of more) {
      const id = `${placeId} ${kind} ${day}`;
      let sum = this.#sums.get(id);
      if (!sum) this.#sums.set(id, (sum = { id, placeId, kind, day, gained: {} }));
      sum.gained[counter] = (sum.gained[counter] ?? 0) + gained;
    }
  }

  get rows(): ReachDay[] {
    return [...this.#sums.values()];
  }
}
