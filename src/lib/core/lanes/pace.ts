import { DateTime, IANAZone } from 'luxon';
import { z } from 'zod';

export const paceSchema = z.object({
  /** Most in one run, one local day, one local week (from Monday on). */
  perRun: z.number().int().positive().nullable().default(3),
  perDay: z.number().int().positive().nullable().default(1),
  perWeek: z.number().int().positive().nullable().default(null),
  /** Minutes between two at least. */
  gap: z.number().nonnegative().default(60),
  /** 1 is Monday, 7 Sunday. */
  weekdays: z.array(z.number().int().min(1).max(7)).min(1).default([1, 2, 3, 4, 5, 6, 7]),
  /** Local hours: from the first to before the last; 0 and 24 are the whole day. */
  hours: z
    .object({ from: z.number().int().min(0).max(23), to: z.number().int().min(1).max(24) })
    .refine(({ from, to }) => from < to, 'The hours end before they begin.')
    .default({ from: 8, to: 20 }),
  /** The first local day on which anything goes out, as YYYY-MM-DD. */
  notBefore: z.iso.date().nullable().default(null),
  /** IANA name of the time zone. */
  zone: z.string().refine((zone) => IANAZone.isValidZone(zone), 'No such time zone.'),
  /** New channels start slowly: one a day at first, one more after so many days each time. */
  rampDays: z.number().int().positive().nullable().default(null)
});
export type Pace = z.infer<typeof paceSchema>;

/** What a place still takes: `left` at the moment `asOf`, `most` in each period after it. */
export interface Allowance {
  most: number;
  per: 'day' | 'week' | 'month';
  left: number;
  /** Milliseconds since 1970. */
  asOf: number;
  /** When things were placed there, or surely will be, by whomever of us. */
  used: readonly number[];
}

export interface PaceHistory {
  /** When the lane placed something, or surely will, in any order. */
  placed: readonly number[];
  /** When the lane was first switched on. */
  since: number;
  /** One for each place it goes to. */
  allowances: readonly Allowance[];
  /** Times that are kept clear: from the first moment to before the last. */
  busy?: readonly { from: number; to: number }[];
}

/** Why something cannot go out at once. */
export const paceReasonSchema = z.enum([
  'not-before',
  'busy',
  'gap',
  'hours',
  'weekday',
  'day-full',
  'week-full',
  'allowance'
]);
export type PaceReason = z.infer<typeof paceReasonSchema>;

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
/** More than a month. */
const MAX_PERIOD = 32 * 24 * HOUR;
/** How far it is looked ahead before it is given up. */
const HORIZON = 5 * 366 * 24 * HOUR;

/** A local day: moments in milliseconds since 1970, each of the first moment of what it names. */
interface Day {
  start: number;
  next: number;
  weekday: number;
  opens: number;
  closes: number;
  week: number;
  month: number;
}

/** Days that are kept at most, over all zones and hours. */
const MAX_KEPT = 20_000;
/** Zones are slow to reckon with, and the same days are asked for over and over. */
const kept = new Map<string, Day[]>();

/** The local days of a pace, each reckoned once. */
class Days {
  readonly #name: string;

  constructor(private readonly pace: Pace) {
    this.#name = `${pace.zone} ${pace.hours.from} ${pace.hours.to}`;
  }

  at(moment: number): Day {
    const bucket = `${this.#name} ${Math.floor(moment / (24 * HOUR))}`;
    const known = kept.get(bucket)?.find((d) => moment >= d.start && moment < d.next);
    if (known) return known;
    const day = this.#reckon(moment);
    if (kept.size > MAX_KEPT) kept.clear();
    kept.set(bucket, [...(kept.get(bucket) ?? []), day]);
    return day;
  }

  #reckon(moment: number): Day {
    const { zone, hours } = this.pace;
    const local = DateTime.fromMillis(moment, { zone });
    const start = local.startOf('day');
    const next = start.plus({ days: 1 }).startOf('day');
    return {
      start: start.toMillis(),
      next: next.toMillis(),
      weekday: local.weekday,
      opens: firstMomentOf(start, next, hours.from),
      closes: hours.to === 24 ? next.toMillis() : firstMomentOf(start, next, hours.to),
      week: local.startOf('week').toMillis(),
      month: local.startOf('month').toMillis()
    };
  }

  /** The first moment of the week or month after the one that a day lies in. */
  after(day: Day, period: 'day' | 'week' | 'month'): number {
    if (period === 'day') return day.next;
    const start = DateTime.fromMillis(day[period], { zone: this.pace.zone });
    return start.plus({ [period]: 1 }).toMillis();
  }

  /** The first moment of the day, week or month that a moment lies in. */
  startOf(moment: number, period: 'day' | 'week' | 'month'): number {
    const day = this.at(moment);
    return period === 'day' ? day.start : day[period];
  }
}

/** The first moment of a day whose local hour is at least `hour`; clocks may be set back or forward. */
function firstMomentOf(start: DateTime, next: DateTime, hour: number): number {
  // On most days no clock is changed.
  if (next.toMillis() - start.toMillis() === 24 * HOUR) return start.toMillis() + hour * HOUR;
  const named = start.set({ hour });
  // An hour that is named twice is meant the first time.
  for (const back of [2, 1, 0.5]) {
    const earlier = named.minus({ minutes: back * 60 });
    if (earlier >= start && earlier.hour >= hour) return earlier.toMillis();
  }
  return Math.min(named.toMillis(), next.toMillis());
}

/** How many moments lie in each local day, week or month. */
class Ledger {
  readonly #counts = new Map<string, number>();

  constructor(
    private readonly days: Days,
    private readonly periods: readonly ('day' | 'week' | 'month')[],
    moments: readonly number[]
  ) {
    for (const moment of moments) this.add(moment);
  }

  add(moment: number): void {
    for (const period of this.periods) {
      const key = `${period} ${this.days.startOf(moment, period)}`;
      this.#counts.set(key, (this.#counts.get(key) ?? 0) + 1);
    }
  }

  count(period: 'day' | 'week' | 'month', day: Day): number {
    const start = period === 'day' ? day.start : day[period];
    return this.#counts.get(`${period} ${start}`) ?? 0;
  }
}

/** A pace with all that goes out, asked for one moment after the other. */
class Planner {
  readonly #days: Days;
  readonly #placed: Ledger;
  /** The same moments in ascending order. */
  readonly #moments: number[];
  readonly #used: { allowance: Allowance; ledger: Ledger; since: number }[];
  readonly #busy: readonly { from: number; to: number }[];
  readonly #firstDay: number;
  /** The first moment of the first day on which anything goes out. */
  readonly #start: number;

  constructor(
    private readonly pace: Pace,
    { placed, since, allowances, busy = [] }: PaceHistory,
    now: number
  ) {
    // What lies further back than any period that is counted changes nothing.
    const isRecent = (moment: number) => moment > now - MAX_PERIOD;
    this.#days = new Days(pace);
    this.#placed = new Ledger(this.#days, ['day', 'week'], placed.filter(isRecent));
    const nearest = now - Math.max(MAX_PERIOD, pace.gap * MINUTE);
    this.#moments = placed.filter((moment) => moment > nearest).sort((a, b) => a - b);
    this.#busy = busy.filter(({ to }) => to > now - MAX_PERIOD);
    this.#firstDay = this.#days.at(since).start;
    this.#start = pace.notBefore
      ? DateTime.fromISO(pace.notBefore, { zone: pace.zone }).startOf('day').toMillis()
      : -Infinity;
    this.#used = allowances.map((allowance) => ({
      allowance,
      ledger: new Ledger(this.#days, [allowance.per], allowance.used.filter(isRecent)),
      since: allowance.used.filter((moment) => this.#isSince(allowance, moment)).length
    }));
  }

  /** Whether a moment lies in the period in which a place was asked, and after it was. */
  #isSince({ asOf, per }: Allowance, moment: number): boolean {
    return moment >= asOf && this.#days.startOf(moment, per) === this.#days.startOf(asOf, per);
  }

  add(moment: number): void {
    this.#placed.add(moment);
    this.#moments.splice(this.#countUpTo(moment), 0, moment);
    for (const used of this.#used) {
      used.ledger.add(moment);
      if (this.#isSince(used.allowance, moment)) used.since++;
    }
  }

  next(now: number, reserve: number): PaceSlot | null {
    let waitsFor: PaceReason | null = null;
    let at = now;
    const end = Math.max(at, this.#start) + this.pace.gap * MINUTE + HORIZON;
    while (at <= end) {
      const reason = this.whyNot(at, reserve);
      if (!reason) return { at, waitsFor };
      waitsFor ??= reason;
      at = this.#after(reason, at, reserve);
    }
    return null;
  }

  /** Why nothing may go out at a moment, or null. */
  whyNot(at: number, reserve: number): PaceReason | null {
    if (at < this.#start) return 'not-before';
    if (this.#busyAt(at, reserve)) return 'busy';
    if (this.#tooNear(at) !== null) return 'gap';
    const day = this.#days.at(at);
    if (!this.pace.weekdays.includes(day.weekday)) return 'weekday';
    if (at < day.opens || at + reserve >= day.closes) return 'hours';
    return this.#full(day);
  }

  #busyAt(at: number, reserve: number): { to: number } | undefined {
    return this.#busy.find(({ from, to }) => at + reserve >= from && at < to);
  }

  /** How many moments lie at or before one. */
  #countUpTo(at: number): number {
    let [low, high] = [0, this.#moments.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.#moments[middle]! <= at) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** What goes out less than the gap before a moment, or after it; the next one first. */
  #tooNear(at: number): number | null {
    const gap = this.pace.gap * MINUTE;
    const count = this.#countUpTo(at);
    const [before = -Infinity, after = Infinity] = [this.#moments[count - 1], this.#moments[count]];
    if (after - at < gap) return after;
    return at - before < gap ? before : null;
  }

  #full(day: Day): PaceReason | null {
    const { perDay, perWeek, rampDays } = this.pace;
    const days = Math.round((day.start - this.#firstDay) / (24 * HOUR));
    const ramp = rampDays === null ? Infinity : 1 + Math.floor(Math.max(0, days) / rampDays);
    if (this.#placed.count('day', day) >= Math.min(perDay ?? Infinity, ramp)) return 'day-full';
    if (perWeek !== null && this.#placed.count('week', day) >= perWeek) return 'week-full';
    return this.#used.some((used) => isSpent(used, day)) ? 'allowance' : null;
  }

  /** The first moment that may be tried after one that may not. */
  #after(reason: PaceReason, at: number, reserve: number): number {
    const day = this.#days.at(at);
    if (reason === 'not-before') return this.#start;
    if (reason === 'busy') return this.#busyAt(at, reserve)!.to;
    if (reason === 'gap') return this.#tooNear(at)! + this.pace.gap * MINUTE;
    if (reason === 'hours' && at < day.opens) return day.opens;
    if (reason === 'week-full') return this.#days.after(day, 'week');
    if (reason !== 'allowance') return day.next;
    const spent = this.#used.find((used) => isSpent(used, day));
    return this.#days.after(day, spent?.allowance.per ?? 'day');
  }
}

function isSpent(
  { allowance, ledger, since }: { allowance: Allowance; ledger: Ledger; since: number },
  day: Day
): boolean {
  const { most, per, left, asOf } = allowance;
  const start = per === 'day' ? day.start : day[per];
  // Of the period in which it was asked, only what came after is not counted yet.
  return start <= asOf ? since >= left : ledger.count(per, day) >= most;
}

/** A moment at which something may go out, and what it has to wait for until then. */
export interface PaceSlot {
  /** Milliseconds since 1970. */
  at: number;
  waitsFor: PaceReason | null;
}

/**
 * The first moment from `now` on at which one more may go out.
 * @param reserve milliseconds that a call may take; all of them must lie within the same hours
 * @returns null where there is no such moment within five years
 */
export const nextAllowed = (
  pace: Pace,
  history: PaceHistory,
  now: number,
  reserve = 0
): PaceSlot | null => new Planner(pace, history, now).next(now, reserve);

/**
 * When the next so many would go out, were each to go at its first moment. Time grows in proportion
 * to their number and to what went out before.
 * @returns fewer where no moment is left within five years
 */
export function planSlots(
  pace: Pace,
  history: PaceHistory,
  now: number,
  count: number,
  reserve = 0
): PaceSlot[] {
  const planner = new Planner(pace, history, now);
  const slots: PaceSlot[] = [];
  let from = now;
  while (slots.length < count) {
    const slot = planner.next(from, reserve);
    if (!slot || slot.at > Math.max(now, slots[0]?.at ?? now) + HORIZON) break;
    slots.push(slot);
    planner.add(slot.at);
    from = slot.at;
  }
  return slots;
}

/** Why one more may not go out at a moment, or null where it may. */
export const whyNotAt = (
  pace: Pace,
  history: PaceHistory,
  at: number,
  reserve = 0
): PaceReason | null => new Planner(pace, history, at).whyNot(at, reserve);

/** Days before a moment that are looked at for one that is nearer than the next after it. */
const DAYS_BACK = 14;
const QUARTER = 15 * MINUTE;

/**
 * The moment nearest to a wished one at which one more may go out: of the days before at the same time of day, else when
 * their hours begin or end.
 * @param now milliseconds since 1970; nothing goes out before
 */
export function nearestAllowed(
  pace: Pace,
  history: PaceHistory,
  wish: number,
  now: number,
  reserve = 0
): number | null {
  const planner = new Planner(pace, history, Math.min(now, wish));
  const later = planner.next(Math.max(wish, now), reserve)?.at ?? null;
  const local = DateTime.fromMillis(wish, { zone: pace.zone });
  const days = new Days(pace);
  let best = later;
  for (let back = 0; back <= DAYS_BACK; back++) {
    const sameTime = local.minus({ days: back }).toMillis();
    const { opens, closes } = days.at(sameTime);
    // Nobody plans for two minutes to six.
    const latest = Math.floor((closes - reserve - MINUTE) / QUARTER) * QUARTER;
    const before = (history.busy ?? []).map(({ from }) => from - reserve - QUARTER);
    for (const at of [sameTime, sameTime - pace.gap * MINUTE, latest, opens, ...before]) {
      const isNearer = best === null || Math.abs(at - wish) < Math.abs(best - wish);
      if (at >= now && at <= wish && isNearer && !planner.whyNot(at, reserve)) best = at;
    }
  }
  return best;
}
