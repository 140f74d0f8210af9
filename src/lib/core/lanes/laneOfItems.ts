import type { Item } from '../model/item.ts';
import { paceSchema, type Pace } from './pace.ts';
import { laneSchema, newLane, type Lane, type LaneTarget } from './lane.ts';

/** How what is made of some chosen items goes out, once it is approved. */
export interface Spread {
  /** Null lets each go out as soon as it is approved. */
  aWeek: number | null;
  /** Local hour from which on they go out. */
  hour: number;
  /** The first local day on which they do, as YYYY-MM-DD; null is at once. */
  firstDay: string | null;
}

/** What is proposed at first. */
export const TWO_A_WEEK: Readonly<Spread> = { aWeek: 2, hour: 9, firstDay: null };

/** Minutes between two that go out on one day. */
const GAP = 60;

/**
 * A lane that makes posts of some chosen videos, or narrated videos of some chosen posts, and of nothing else: they
 * wait for review, and go out as they are spread. It is done when all of them are.
 * @param items all of one kind
 * @param of the identity and the zone of the lane; `now` is milliseconds since 1970
 */
export function laneOfItems(
  items: readonly Item[],
  of: { id: string; name: string; zone: string; now: number },
  target: Pick<LaneTarget, 'placeId' | 'status'>,
  spread: Spread
): Lane {
  const { id, name, zone, now } = of;
  const isOfPosts = items[0]?.kind === 'post';
  const lane = newLane(id, name, zone, now);
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
    ...(isOfPosts && { make: { ...lane.make, kind: 'video' as const } }),
    pace: spreadPace(spread, zone),
    targets: [target]
  });
}

/** So many a week from an hour on, as evenly as can be; or each as soon as it may. */
export function spreadPace({ aWeek, hour, firstDay }: Spread, zone: string): Pace {
  const whole = { zone, perRun: null, notBefore: firstDay };
  if (aWeek === null)
    return paceSchema.parse({ ...whole, perDay: null, gap: 0, hours: { from: 0, to: 24 } });
  const perDay = Math.ceil(aWeek / 7);
  return paceSchema.parse({
    ...whole,
    perDay,
    perWeek: aWeek,
    gap: GAP,
    weekdays: evenWeekdays(aWeek),
    hours: { from: Math.min(hour, 24 - perDay), to: Math.min(24, hour + perDay) }
  });
}

/** Days of the week, as far apart as so many can be: 1 is Monday, which is always among them. */
export const evenWeekdays = (aWeek: number): number[] =>
  aWeek >= 7
    ? [1, 2, 3, 4, 5, 6, 7]
    : Array.from({ length: aWeek }, (_, i) => 1 + Math.round((i * 7) / aWeek));
