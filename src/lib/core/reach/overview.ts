import { claimsOf, type Dimension, type DimensionClaims } from './claims.ts';
import { localHours, weekdayOfDay } from './day.ts';
import type { Figures } from './figures.ts';
import type { ReachKind } from './reachRow.ts';
import {
  compareWithUsual,
  isBetterThanUsual,
  wasNeverFound,
  type Aged,
  type Compared
} from './usual.ts';

const DAY = 86_400_000;

/** An item that came out, with what may have to do with its success. */
export interface ReachSubject {
  id: string;
  kind: ReachKind;
  placeId: string;
  /** The lane that published it, or empty. */
  laneId: string;
  /** Milliseconds since 1970. */
  published: number;
  /** Seconds, of videos. */
  duration: number | null;
  /** Of updates. */
  form: string;
  totals: Figures;
}

/** An item beside what is usual for its age. */
export interface ComparedSubject extends Compared {
  /** Days since it came out. */
  age: number;
}

export interface ReachOverview {
  /** Items that could be compared with others of their kind at their place. */
  compared: number;
  /** Furthest above the usual first. */
  better: ComparedSubject[];
  /** Furthest below it first. */
  lost: ComparedSubject[];
  claims: DimensionClaims[];
  /** Those with most reach, of every kind. */
  top: TopSubject[];
}

export interface TopSubject {
  id: string;
  kind: ReachKind;
  total: number;
  /** Days since it came out. */
  age: number;
}

/** What counts as reach of a kind; null where its place tells nothing of it. */
export function reachOf(kind: ReachKind, totals: Figures): number | null {
  if (kind === 'video') return totals.views ?? null;
  if (kind === 'post') return totals.visits ?? totals.views ?? null;
  const { likes, shares, comments, votes } = totals;
  const told = [likes, shares, comments, votes].filter((n) => n !== undefined);
  return told.length > 0 ? told.reduce((sum, n) => sum + n, 0) : null;
}

/** The length of a video in words that a claim can name. */
export const LENGTHS = ['under-3', '3-10', '10-20', 'over-20'] as const;
function lengthOf(seconds: number | null): string | undefined {
  if (seconds === null) return undefined;
  const minutes = seconds / 60;
  return LENGTHS[minutes < 3 ? 0 : minutes < 10 ? 1 : minutes < 20 ? 2 : 3];
}

/** Six hours of the day, by the local hour. */
export const TIMES = ['night', 'morning', 'afternoon', 'evening'] as const;

/** How many of a list are told at most. */
const MOST_TOLD = 20;
const MOST_AT_TOP = 200;

/**
 * What does better than usual for its age, what was never found, and which groups do well.
 * @param now milliseconds since 1970
 * @param zone IANA name of the time zone
 */
export function overviewOf(
  subjects: readonly ReachSubject[],
  now: number,
  zone: string
): ReachOverview {
  const localHour = localHours(zone);
  const counted = subjects.flatMap((subject) => {
    const total = reachOf(subject.kind, subject.totals);
    return total === null || subject.published > now ? [] : [{ subject, total }];
  });
  const aged: Aged[] = counted.map(({ subject, total }) => ({
    id: subject.id,
    age: (now - subject.published) / DAY,
    total,
    group: `${subject.placeId} ${subject.kind}`
  }));
  const compared = compareWithUsual(aged);
  const told = aged.flatMap(({ id, age }) => {
    const one = compared.get(id);
    return one ? [{ ...one, age }] : [];
  });
  const judged = counted.flatMap(({ subject }) => {
    const one = compared.get(subject.id);
    return one ? [{ score: one.score, groups: groupsOf(subject, localHour) }] : [];
  });
  // Places are told apart by what they do beside each other, so what is usual is that of all.
  const acrossPlaces = compareWithUsual(
    aged.map((one, i) => ({ ...one, group: counted[i]!.subject.kind }))
  );
  const byPlace = counted.flatMap(({ subject }) => {
    const one = acrossPlaces.get(subject.id);
    return one ? [{ score: one.score, groups: { place: subject.placeId } }] : [];
  });
  return {
    compared: told.length,
    better: told
      .filter(isBetterThanUsual)
      .sort((a, b) => b.score - a.score)
      .slice(0, MOST_TOLD),
    lost: told
      .filter((one) => wasNeverFound(one, one.age))
      .sort((a, b) => a.score - b.score)
      .slice(0, MOST_TOLD),
    claims: claimsOf([...judged, ...byPlace]),
    top: (['video', 'post', 'update'] as const).flatMap((kind) =>
      counted
        .filter(({ subject }) => subject.kind === kind)
        .sort((a, b) => b.total - a.total)
        .slice(0, MOST_AT_TOP)
        .map(({ subject: { id, published }, total }) => ({
          id,
          kind,
          total,
          age: (now - published) / DAY
        }))
    )
  };
}

function groupsOf(
  { kind, laneId, published, duration, form }: ReachSubject,
  localHour: ReturnType<typeof localHours>
): Partial<Record<Dimension, string>> {
  const { day, hour } = localHour(published);
  const length = kind === 'video' ? lengthOf(duration) : undefined;
  return {
    // By hand is a group as well: lanes are held against it.
    lane: laneId || 'by-hand',
    weekday: String(weekdayOfDay(day)),
    time: TIMES[Math.floor(hour / 6)] ?? 'night',
    ...(length && { length }),
    ...(kind === 'update' && form && { form })
  };
}
