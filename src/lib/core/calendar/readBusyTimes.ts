import ICAL from 'ical.js';
import { DateTime, IANAZone } from 'luxon';
import type { Busy } from '../model/busy.ts';

/** What a calendar file has of busy times. */
export interface BusyTimes {
  busy: Busy[];
  /** Events that have passed or come too late, that leave the time free, or that make no sense. */
  leftOut: number;
}

/** What was read is no calendar. */
export class NoCalendarError extends Error {}

/** Occurrences of one event, and steps that are taken to find them. */
const [MOST_OF_EVENT, MOST_STEPS] = [500, 5_000];
/** Milliseconds that are looked ahead. */
const HORIZON = 2 * 366 * 86_400_000;

/**
 * Events of a calendar file (iCalendar, RFC 5545) that take up time, from now on for two years, those that come again
 * each time they do.
 * @param zone IANA name of the time zone in which days and times without one are meant
 * @throws NoCalendarError
 */
export function readBusyTimes(file: string, zone: string, now: number): BusyTimes {
  const events = eventsOf(file);
  const busy: Busy[] = [];
  let leftOut = 0;
  for (const event of events) {
    const found = takesTime(event) ? occurrencesOf(event, zone, now) : [];
    if (found.length === 0) leftOut++;
    busy.push(...found);
  }
  return { busy: busy.sort((a, b) => a.from - b.from), leftOut };
}

function eventsOf(file: string): ICAL.Event[] {
  let calendar: ICAL.Component;
  try {
    calendar = new ICAL.Component(ICAL.parse(file) as unknown[]);
  } catch {
    throw new NoCalendarError();
  }
  if (calendar.name !== 'vcalendar') throw new NoCalendarError();
  const all = calendar.getAllSubcomponents('vevent');
  // An event that comes again may be told apart for single times.
  const exceptions = all.filter((event) => event.hasProperty('recurrence-id'));
  return all
    .filter((event) => !event.hasProperty('recurrence-id'))
    .map((event) => {
      const uid = event.getFirstPropertyValue('uid');
      const own = exceptions.filter((e) => e.getFirstPropertyValue('uid') === uid);
      return new ICAL.Event(event, { exceptions: own });
    });
}

const takesTime = ({ component }: ICAL.Event): boolean =>
  component.getFirstPropertyValue('transp') !== 'TRANSPARENT' &&
  component.getFirstPropertyValue('status') !== 'CANCELLED';

/** When an event takes place; nothing where its times make no sense. */
function occurrencesOf(event: ICAL.Event, zone: string, now: number): Busy[] {
  try {
    const found: Busy[] = [];
    const take = (of: ICAL.Event, start: ICAL.Time, end: ICAL.Time) => {
      const [from, to] = [momentOf(start, of, zone), momentOf(end, of, zone)];
      const isAhead = to > now && from < now + HORIZON;
      if (isAhead && from < to && takesTime(of)) found.push({ title: of.summary ?? '', from, to });
    };
    if (!event.isRecurring()) {
      take(event, event.startDate, event.endDate);
      return found;
    }
    const times = event.iterator();
    for (let step = 0; step < MOST_STEPS && found.length < MOST_OF_EVENT; step++) {
      const next = times.next() as ICAL.Time | null | undefined;
      if (!next || momentOf(next, event, zone) > now + HORIZON) break;
      const { item, startDate, endDate } = event.getOccurrenceDetails(next);
      take(item, startDate, endDate);
    }
    return found;
  } catch {
    return [];
  }
}

/** A day begins, and a time without a zone is meant, where the user is. */
function momentOf(time: ICAL.Time, { component }: ICAL.Event, zone: string): number {
  const named = String(component.getFirstProperty('dtstart')?.getParameter('tzid') ?? '');
  const isFloating = time.isDate || time.zone === ICAL.Timezone.localTimezone;
  if (!isFloating) return time.toUnixTime() * 1000;
  const { year, month, day, hour, minute, second } = time;
  const parts = time.isDate ? { year, month, day } : { year, month, day, hour, minute, second };
  const meant = !time.isDate && IANAZone.isValidZone(named) ? named : zone;
  return DateTime.fromObject(parts, { zone: meant }).toMillis();
}
