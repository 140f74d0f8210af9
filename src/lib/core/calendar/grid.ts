import { DateTime } from 'luxon';

/** A local day of the calendar. Times are milliseconds since 1970. */
export interface CalendarDay {
  /** ISO 8601, as `2026-11-26`. */
  date: string;
  start: number;
  /** The first moment of the next day: clocks may be set back or forward in between. */
  end: number;
  /** Whether it belongs to the month that is shown, and not to the one before or after. */
  isInMonth: boolean;
}

const WEEK = 7;

/**
 * Whole weeks from Monday on that hold a month: four, five or six.
 * @param date any day of it, as `2026-11-26`
 * @param zone IANA name of the time zone
 */
export function monthDays(date: string, zone: string): CalendarDay[] {
  const month = DateTime.fromISO(date, { zone });
  const first = month.startOf('month').startOf('week');
  const last = month.endOf('month').endOf('week');
  const count = Math.round(last.diff(first, 'days').days);
  return Array.from({ length: count }, (_, i) => dayOf(first.plus({ days: i }), month.month));
}

/** The seven days of the week that a day lies in, from Monday on. */
export function weekDays(date: string, zone: string): CalendarDay[] {
  const day = DateTime.fromISO(date, { zone });
  const first = day.startOf('week');
  return Array.from({ length: WEEK }, (_, i) => dayOf(first.plus({ days: i }), null));
}

function dayOf(day: DateTime, month: number | null): CalendarDay {
  const start = day.startOf('day');
  return {
    date: start.toISODate()!,
    start: start.toMillis(),
    end: start.plus({ days: 1 }).startOf('day').toMillis(),
    isInMonth: month === null || start.month === month
  };
}

/** Empty days in a row, today or later. */
export interface Gap {
  /** The first of them. */
  date: string;
  days: number;
}

/** Stretches of so many empty days or more, from a day on. */
export function gapsIn(
  days: readonly Pick<CalendarDay, 'date' | 'isInMonth'>[],
  isEmpty: (date: string) => boolean,
  today: string,
  atLeast: number
): Gap[] {
  const gaps: Gap[] = [];
  let open: Gap | null = null;
  for (const { date, isInMonth } of days) {
    if (date < today || !isInMonth || !isEmpty(date)) {
      open = null;
      continue;
    }
    if (open) open.days++;
    else gaps.push((open = { date, days: 1 }));
  }
  return gaps.filter((gap) => gap.days >= atLeast);
}

/** Another day, so many days, weeks or months on; the last day of a shorter month. */
export const dayAfter = (date: string, by: { days?: number; weeks?: number; months?: number }) =>
  DateTime.fromISO(date, { zone: 'utc' }).plus(by).toISODate()!;

/**
 * The same time on another local day. An hour that is left out that day, because clocks are set forward, becomes the one
 * after it.
 */
export function atSameTime(at: number, date: string, zone: string): number {
  const { hour, minute, second, millisecond } = DateTime.fromMillis(at, { zone });
  return DateTime.fromISO(date, { zone }).set({ hour, minute, second, millisecond }).toMillis();
}

/** The same minute of another local hour of a day. */
export function atHour(at: number, date: string, hour: number, zone: string): number {
  const { minute, second, millisecond } = DateTime.fromMillis(at, { zone });
  return DateTime.fromISO(date, { zone }).set({ hour, minute, second, millisecond }).toMillis();
}

/** So many local days on, at the same time of day. */
export const shiftDays = (at: number, days: number, zone: string): number =>
  DateTime.fromMillis(at, { zone }).plus({ days }).toMillis();

export const dateOf = (at: number, zone: string): string =>
  DateTime.fromMillis(at, { zone }).toISODate()!;
export const hourOf = (at: number, zone: string): number => DateTime.fromMillis(at, { zone }).hour;
/** The first moment of a local hour; of one that is left out that day, of the one after it. */
export const startOfHour = (date: string, hour: number, zone: string): number =>
  DateTime.fromISO(date, { zone }).set({ hour }).toMillis();

/** Whether two moments lie in the same local day, week (from Monday on) or month. */
export const isSamePeriod = (
  at: number,
  other: number,
  period: 'day' | 'week' | 'month',
  zone: string
): boolean =>
  DateTime.fromMillis(at, { zone }).hasSame(DateTime.fromMillis(other, { zone }), period);
