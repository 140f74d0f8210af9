import { DateTime } from 'luxon';
import type { CalendarEntry } from '$lib/core/calendar/calendarEntry.ts';
import type { InTheWay } from '$lib/core/calendar/move.ts';
import type { Busy } from '$lib/core/model/busy.ts';
import { formatDate, formatDateTime } from '../messages.ts';

export const kindLabels: Record<CalendarEntry['kind'], string> = {
  post: 'Post',
  video: 'Video',
  update: 'Update'
};

export const stateLabels: Record<CalendarEntry['state'], string> = {
  published: 'Published',
  scheduled: 'Scheduled',
  planned: 'Planned',
  sending: 'Publishing',
  failed: 'Failed'
};

const IN_THE_WAY: Record<InTheWay['reason'], string> = {
  past: 'This time has passed.',
  'not-before': 'This is before the first day of its lane.',
  busy: 'This is in one of your busy times.',
  gap: 'This is too close to another item of its lane.',
  hours: 'This is outside the hours of its lane.',
  weekday: 'Its lane does not publish on this weekday.',
  'day-full': 'Its lane publishes no more on this day.',
  'week-full': 'Its lane publishes no more in this week.',
  allowance: 'The allowance of its place is used up by then.'
};
export const inTheWayMessage = ({ reason }: InTheWay): string => IN_THE_WAY[reason];

export const formatMoment = (at: number): string => formatDateTime(new Date(at).toISOString());

const inEnglish = (date: string): DateTime => DateTime.fromISO(date).setLocale('en');
/** A month: `November 2026`. @param date a day of it, as `2026-11-26` */
export const monthName = (date: string): string => inEnglish(date).toFormat('LLLL yyyy');
/** A day in full: `Thursday 26 November`. */
export const dayName = (date: string): string => inEnglish(date).toFormat('cccc d LLLL');
/** A day beside others: `Thu 26`. */
export const shortDay = (date: string): string => inEnglish(date).toFormat('ccc d');
/** A time of day: `09:30`. */
export const timeOf = (at: number): string => DateTime.fromMillis(at).toFormat('HH:mm');
/** The days of a week: `23–29 Nov 2026`. */
export function weekName(first: string, last: string): string {
  const [from, to] = [inEnglish(first), inEnglish(last)];
  const start = from.hasSame(to, 'month')
    ? 'd'
    : from.hasSame(to, 'year')
      ? 'd LLL '
      : 'd LLL yyyy ';
  return `${from.toFormat(start)}–${from.hasSame(to, 'month') ? '' : ' '}${to.toFormat('d LLL yyyy')}`;
}

/** What screen readers say of an entry, and what a pointer shows. */
export const entryName = (entry: CalendarEntry, place: string): string =>
  `${timeOf(entry.at)} ${kindLabels[entry.kind]} “${entry.title}” at ${place || 'an unknown place'}, ${stateLabels[entry.state].toLowerCase()}`;

/** When a busy time is: `4–6 Dec 2026` for whole days, else with its times. */
export function busyWhen({ from, to }: Pick<Busy, 'from' | 'to'>): string {
  const [start, end] = [DateTime.fromMillis(from), DateTime.fromMillis(to)];
  const isWholeDays = +start === +start.startOf('day') && +end === +end.startOf('day');
  if (!isWholeDays) return `${formatMoment(from)} to ${formatMoment(to)}`;
  const last = end.minus({ days: 1 });
  if (last <= start) return formatDate(start.toISO());
  return weekName(start.toISODate() ?? '', last.toISODate() ?? '');
}

export const busyNames = (busy: readonly Busy[]): string =>
  [...new Set(busy.map(({ title }) => title || 'Busy'))].join(', ');
