import { gainsByDay, totalOn, type Curve } from './curve.ts';
import type { Day } from './day.ts';
import type { Counter } from './figures.ts';
import { visitsCurve, type ReachDay, type ReachKind, type ReachRow } from './reachRow.ts';

/** What is drawn over time. */
export const MEASURES = ['reach', 'likes', 'comments'] as const;
export type Measure = (typeof MEASURES)[number];
/** What came on each day, or the total by then. */
export type By = 'day' | 'total';

/** A line of a chart over time. */
export interface ReachLine {
  label: string;
  kind: ReachKind;
  /** One for each day; null where nothing is known. */
  values: readonly (number | null)[];
}

export interface ReachChart {
  /** The first day. */
  from: Day;
  lines: readonly ReachLine[];
  /** Days that are marked, by the numbers that a list beside the chart explains. */
  marks: readonly { day: Day; number: number }[];
}

const RESPONSES: readonly Counter[] = ['likes', 'shares', 'comments', 'votes'];

/** The counters behind a measure, of a kind. */
export function countersOf(kind: ReachKind, measure: Measure): readonly Counter[] {
  if (measure !== 'reach') return [measure];
  return kind === 'video' ? ['views'] : kind === 'post' ? ['visits'] : RESPONSES;
}

/** The curves of a measure of an item. Posts whose blog counts views itself are told by them where there is no log. */
export function curvesOf(row: ReachRow, measure: Measure): Curve[] {
  const visits = measure === 'reach' && row.kind === 'post' ? visitsCurve(row.visits) : null;
  if (visits) return [visits];
  const counters = countersOf(row.kind, measure).map((one) => (one === 'visits' ? 'views' : one));
  return counters.flatMap((counter) => row.counters[counter] ?? []);
}

/**
 * One value for each day, both ends among them: null before anything is known.
 * @param published the day on which it came out, or null
 */
export function seriesOf(
  curves: readonly Curve[],
  published: Day | null,
  { from, to, by }: { from: Day; to: Day; by: By }
): (number | null)[] {
  const gains = curves.map((curve) => gainsByDay(curve, published));
  const first = Math.min(...curves.map(({ days }) => days[0] ?? Infinity));
  const start = published !== null && first - published <= 7 ? Math.min(published, first) : first;
  const last = Math.max(...curves.map(({ until }) => until));
  return Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => {
    const on = from + i;
    if (curves.length === 0 || on < start || on > last) return null;
    if (by === 'day') return gains.reduce((sum, gained) => sum + (gained.get(on) ?? 0), 0);
    return curves.reduce((sum, curve) => sum + (totalOn(curve, on) ?? 0), 0);
  });
}

/** What items of a kind gained together: one value for each day, both ends among them. */
export function catalogueSeries(
  days: readonly ReachDay[],
  kind: ReachKind,
  measure: Measure,
  { from, to, by }: { from: Day; to: Day; by: By }
): (number | null)[] {
  const counters = countersOf(kind, measure);
  const values = new Array<number | null>(Math.max(0, to - from + 1)).fill(null);
  const told = days.filter((day) => day.kind === kind && counters.some((c) => c in day.gained));
  if (told.length === 0) return values;
  const [first, last] = told.reduce(
    ([low, high], { day }) => [Math.min(low, day), Math.max(high, day)],
    [Infinity, -Infinity]
  );
  for (let on = Math.max(first, from); on <= Math.min(last, to); on++) values[on - from] = 0;
  for (const { day, gained } of told) {
    const at = day - from;
    if (at < 0 || at >= values.length) continue;
    values[at] = counters.reduce((sum, c) => sum + (gained[c] ?? 0), values[at] ?? 0);
  }
  if (by === 'day') return values;
  let total = 0;
  return values.map((value) => (value === null ? null : (total += value)));
}
