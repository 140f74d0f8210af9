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
  /** When things were placed there, by whomever of us. */
  used: readonly number[];
}

export interface PaceHistory {
  /** When the lane placed something, in any order. */
  placed: readonly number[];
  /** When the lane was first switched on. */
  since: number;
  /** One for each place it goes to. */
  allowances: readonly Allowance[];
}

/** Why something cannot go out at once. */
export const paceReasonSchema = z.enum([
  'not-before',
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

/** A pace with all that went out so far, asked for one moment after the other. */
class Planner {
  readonly #days: Days;
  readonly #placed: Ledger;
  readonly #used: { allowance: Allowance; ledger: Ledger; since: number }[];
  #last: number;
  readonly #firstDay: number;
  /** The first moment of the first day on which anything goes out. */
  readonly #start: number;

  constructor(
    private readonly pace: Pace,
    { placed, since, allowances }: PaceHistory,
    now: number
  ) {
    // What lies further back than any period that is counted changes nothing.
    const isRecent = (moment: number) => moment > now - MAX_PERIOD;
    this.#days = new Days(pace);
    this.#placed = new Ledger(this.#days, ['day', 'week'], placed.filter(isRecent));
    this.#last = placed.reduce((latest, t) => Math.max(latest, t), -Infinity);
    this.#firstDay = this.#days.at(since).start;
    this.#start = pace.notBefore
      ? DateTime.fromISO(pace.notBefore, { zone: pace.zone }).startOf('day').toMillis()
      : -Infinity;
    this.#used = allowances.map((allowance) => ({
      allowance,
      ledger: new Ledger(this.#days, [allowance.per], allowance.used.filter(isRecent)),
      since: allowance.used.filter((t) => t >= allowance.asOf).length
    }));
  }

  add(moment: number): void {
    this.#placed.add(moment);
    this.#last = Math.max(this.#last, moment);
    for (const used of this.#used) {
      used.ledger.add(moment);
      if (moment >= used.allowance.asOf) used.since++;
    }
  }

  next(now: number, reserve: number): PaceSlot | null {
    const { gap, weekdays } = this.pace;
    let waitsFor: PaceReason | null = null;
    let at = now;
    if (this.#start > at) {
      at = this.#start;
      waitsFor = 'not-before';
    }
    if (this.#last + gap * MINUTE > at) {
      at = this.#last + gap * MINUTE;
      waitsFor = 'gap';
    }
    const end = at + HORIZON;
    while (at <= end) {
      const day = this.#days.at(at);
      const reason: PaceReason | null = !weekdays.includes(day.weekday)
        ? 'weekday'
        : at < day.opens || at + reserve >= day.closes
          ? 'hours'
          : this.#full(day);
      if (!reason) return { at, waitsFor };
      waitsFor ??= reason;
      at = this.#after(reason, at, day);
    }
    return null;
  }

  #full(day: Day): PaceReason | null {
    const { perDay, perWeek, rampDays } = this.pace;
    const days = Math.round((day.start - this.#firstDay) / (24 * HOUR));
    const ramp = rampDays === null ? Infinity : 1 + Math.floor(Math.max(0, days) / rampDays);
    if (this.#placed.count('day', day) >= Math.min(perDay ?? Infinity, ramp)) return 'day-full';
    if (perWeek !== null && this.#placed.count('week', day) >= perWeek) return 'week-full';
    return this.#used.some((used) => isSpent(used, day)) ? 'allowance' : null;
  }

  #after(reason: PaceReason, at: number, day: Day): number {
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
