import { z } from 'zod';
import { daySchema, type Day } from './day.ts';

/**
 * How a total went from day to day. Days on which it stayed the same between two equal ones are left out.
 * `days` rise, and `totals` belong to them.
 */
export const curveSchema = z
  .object({
    days: z.array(daySchema),
    totals: z.array(z.number().nonnegative()),
    /** The last day on which it was read; the total was still the last one. */
    until: daySchema
  })
  .refine(({ days, totals }) => days.length === totals.length);
export type Curve = z.infer<typeof curveSchema>;

export const lastTotal = ({ totals }: Curve): number => totals.at(-1) ?? 0;

/** The curve with one more reading. The last one of a day counts; one of an earlier day than the last changes nothing. */
export function withReading(curve: Curve | undefined, on: Day, total: number): Curve {
  if (!curve || curve.days.length === 0) return { days: [on], totals: [total], until: on };
  if (on < curve.until) return curve;
  const days = [...curve.days];
  const totals = [...curve.totals];
  if (days.at(-1) === on) totals[totals.length - 1] = total;
  else if (total !== totals.at(-1)) {
    // It was still the same on the last day on which it was read.
    if (days.at(-1) !== curve.until && curve.until !== on) {
      days.push(curve.until);
      totals.push(lastTotal(curve));
    }
    days.push(on);
    totals.push(total);
  }
  return { days, totals, until: on };
}

/**
 * The curve with what was gained on single days, as services export it. Where a total was read, gains before that day
 * lead back from it, and later ones are known already; else totals begin at nothing.
 * @returns the curve, and how many days were known already
 */
export function withGains(
  curve: Curve | undefined,
  gains: readonly { day: Day; gained: number }[]
): { curve: Curve; known: number } {
  const sorted = [...gains].sort((a, b) => a.day - b.day);
  const first = curve?.days[0] ?? Infinity;
  const earlier = sorted.filter((gain) => gain.day < first);
  const known = sorted.length - earlier.length;
  const days: number[] = [];
  const totals: number[] = [];
  const sum = earlier.reduce((total, { gained }) => total + gained, 0);
  // What was there before the first of these days, or what the gains do not explain.
  let total = curve ? Math.max(0, (curve.totals[0] ?? 0) - sum) : 0;
  for (const { day: on, gained } of earlier) {
    total += gained;
    if (days.at(-1) === on) totals[totals.length - 1] = total;
    else {
      days.push(on);
      totals.push(total);
    }
  }
  return {
    curve: {
      days: [...days, ...(curve?.days ?? [])],
      totals: [...totals, ...(curve?.totals ?? [])],
      until: curve?.until ?? days.at(-1) ?? 0
    },
    known
  };
}

/** Days after it came out for which a first reading is taken as what was gained since. */
const FRESH = 7;

/**
 * What was gained on each day. Between two readings that are days apart it is spread evenly over them, and what was there
 * at the first reading counts only where the item had just come out.
 * @param published the day on which it came out, or null
 */
export function gainsByDay(curve: Curve, published: Day | null = null): Map<Day, number> {
  const gains = new Map<Day, number>();
  let before = startOf(curve, published);
  for (const [i, on] of curve.days.entries()) {
    const total = curve.totals[i] ?? 0;
    if (before) spread(gains, before, { on, total });
    before = { on, total };
  }
  return gains;
}

interface Point {
  on: Day;
  total: number;
}

/** Nothing, the day before it came out; null where that is too long ago. */
function startOf({ days }: Curve, published: Day | null): Point | null {
  const first = days[0] ?? 0;
  return published !== null && published <= first && first - published <= FRESH
    ? { on: published - 1, total: 0 }
    : null;
}

function spread(gains: Map<Day, number>, from: Point, to: Point): void {
  const count = to.on - from.on;
  const gained = to.total - from.total;
  // Even, and whole: the remainder goes where the sum has come to.
  let given = 0;
  for (let i = 1; i <= count; i++) {
    const upTo = Math.round((gained * i) / count);
    if (upTo !== given) gains.set(from.on + i, (gains.get(from.on + i) ?? 0) + upTo - given);
    given = upTo;
  }
}

/** What a reading adds to single days, beside what the curve had before it. */
export function gainsOfReading(
  curve: Curve | undefined,
  on: Day,
  total: number,
  published: Day | null
): Map<Day, number> {
  const gains = new Map<Day, number>();
  if (curve && curve.days.length > 0) {
    if (on < curve.until) return gains;
    const from = curve.until === on ? on - 1 : curve.until;
    spread(gains, { on: from, total: lastTotal(curve) }, { on, total });
    return gains;
  }
  const start = startOf({ days: [on], totals: [total], until: on }, published);
  if (start) spread(gains, start, { on, total });
  return gains;
}

/** The total by the end of a day, on a straight line between two readings; null before the first. */
export function totalOn({ days, totals }: Curve, on: Day): number | null {
  const next = days.findIndex((d) => d >= on);
  if (next === -1) return totals.at(-1) ?? null;
  if (days[next] === on) return totals[next] ?? null;
  if (next === 0) return null;
  const [d0, d1] = [days[next - 1]!, days[next]!];
  const [t0, t1] = [totals[next - 1]!, totals[next]!];
  return t0 + ((t1 - t0) * (on - d0)) / (d1 - d0);
}

/** Days on which a total was lower than before: a place counted anew, or took something out. */
export const fallsOf = ({ days, totals }: Curve): { on: Day; from: number; to: number }[] =>
  days.flatMap((on, i) => {
    const [from, to] = [totals[i - 1] ?? 0, totals[i] ?? 0];
    return i > 0 && to < from ? [{ on, from, to }] : [];
  });
