import ical, { ICalCalendarMethod } from 'ical-generator';

/** Something that is planned. */
export interface Planned {
  /** Stays the same when it is moved. */
  id: string;
  title: string;
  /** Where it goes, and by which lane. */
  place: string;
  lane: string;
  /** Milliseconds since 1970. */
  at: number;
}

/** Minutes that a thing takes in a calendar; nothing takes any time. */
const LENGTH = 15 * 60_000;

/** What is planned as a calendar file (iCalendar, RFC 5545). @param now milliseconds since 1970 */
export function calendarFile(planned: readonly Planned[], now: number): string {
  const calendar = ical({
    name: 'Swift Twin: planned',
    method: ICalCalendarMethod.PUBLISH,
    prodId: { company: 'Swift Twin', product: 'Lanes', language: 'EN' }
  });
  for (const { id, title, place, lane, at } of planned)
    calendar.createEvent({
      id: `${id}@swift-twin.invalid`,
      stamp: new Date(now),
      start: new Date(at),
      end: new Date(at + LENGTH),
      summary: `${title} → ${place}`,
      description: `By the lane “${lane}”.`
    });
  return calendar.toString();
}
