import type { Item } from '../model/item.ts';
import { laneSchema, newLane, type Lane, type LaneTarget } from './lane.ts';

/** How what is made of some chosen items goes out, once it is approved. */
export interface Spread {
  /** Null lets each go out as soon as it is approved. */
  aWeek: number | null;
  /** Local hour from which on they go out. */
  hour: number;
}

/** Minutes between two that go out on one day. */
const GAP = 60;

/**
 * A lane that makes posts of some chosen videos and of nothing else: they wait for review, and go out as
 * they are spread. It is done when all of them are.
 * @param of the identity and the zone of the lane; `now` is milliseconds since 1970
 */
export function laneOfItems(
  items: readonly Item[],
  of: { id: string; name: string; zone: string; now: number },
  target: Pick<LaneTarget, 'placeId' | 'status'>,
  { aWeek, hour }: Spread
): Lane {
  const { id, name, zone, now } = of;
  const lane = newLane(id, name, zone, now);
  const perDay = aWeek === null ? null : Math.ceil(aWeek / 7);
  const hours = Math.max(1, perDay ?? 1);
  return laneSchema.parse({
    ...lane,
    isOn: true,
    since: now,
    source: {
      ...lane.source,
      places: [...new Set(items.map((item) => item.placeId))],
      sheet: {
        columns: ['address', 'title'],
        rows: items.map(({ url, title }) => [url, title]),
        key: 0
      }
    },
    // They were chosen one by one.
    filter: { ...lane.filter, scope: 'oldest-first', publicOnly: false },
    pace: {
      zone,
      perRun: null,
      perDay,
      perWeek: aWeek,
      gap: aWeek === null ? 0 : GAP,
      ...(aWeek !== null && {
        weekdays: evenWeekdays(aWeek),
        hours: { from: Math.min(hour, 24 - hours), to: Math.min(24, hour + hours) }
      }),
      ...(aWeek === null && { hours: { from: 0, to: 24 } })
    },
    targets: [target]
  });
}

/** Days of the week, as far apart as so many can be: 1 is Monday, which is always among them. */
export const evenWeekdays = (aWeek: number): number[] =>
  aWeek >= 7
    ? [1, 2, 3, 4, 5, 6, 7]
    : Array.from({ length: aWeek }, (_, i) => 1 + Math.round((i * 7) / aWeek));
