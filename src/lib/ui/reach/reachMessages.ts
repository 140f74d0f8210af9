import type { Dimension, GroupClaim } from '$lib/core/reach/claims.ts';
import { LENGTHS, TIMES } from '$lib/core/reach/overview.ts';
import type { Counter } from '$lib/core/reach/figures.ts';
import type { Moment } from '$lib/work/reach/twinReach.ts';
import type { LinkedUpdate } from '$lib/work/reach/names.ts';
import { formatDate, plural } from '../messages.ts';

export const WEEKDAYS = [
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday'
];

export const counterLabels: Record<Counter, string> = {
  views: 'Views',
  visits: 'Visits',
  likes: 'Likes',
  comments: 'Comments',
  shares: 'Shares',
  votes: 'Votes',
  ratings: 'Ratings',
  watchTime: 'Watch time (seconds)'
};

export const dimensionLabels: Record<Dimension, string> = {
  place: 'Place',
  lane: 'Lane',
  weekday: 'Day of the week',
  time: 'Time of day',
  length: 'Length of the video',
  form: 'Kind of update'
};

const LENGTH_NAMES: Record<(typeof LENGTHS)[number], string> = {
  'under-3': 'Under 3 minutes',
  '3-10': '3 to 10 minutes',
  '10-20': '10 to 20 minutes',
  'over-20': 'Over 20 minutes'
};
const TIME_NAMES: Record<(typeof TIMES)[number], string> = {
  night: 'At night (0:00 to 6:00)',
  morning: 'In the morning (6:00 to 12:00)',
  afternoon: 'In the afternoon (12:00 to 18:00)',
  evening: 'In the evening (18:00 to 24:00)'
};
const FORM_NAMES: Record<string, string> = {
  text: 'Short text',
  thread: 'Thread',
  clip: 'With a clip',
  poll: 'Poll',
  quiz: 'Quiz'
};

/**
 * @param laneName the name of a lane by its id
 * @param placeName the title of a place by its id
 */
export function groupLabel(
  dimension: Dimension,
  group: string,
  laneName: (id: string) => string | undefined,
  placeName: (id: string) => string | undefined
): string {
  if (dimension === 'place') return placeName(group) ?? 'A place that was disconnected';
  if (dimension === 'lane')
    return group === 'by-hand' ? 'By hand' : (laneName(group) ?? 'A lane that was deleted');
  if (dimension === 'weekday') return WEEKDAYS[Number(group)] ?? group;
  if (dimension === 'time') return TIME_NAMES[group as 'night'] ?? group;
  if (dimension === 'length') return LENGTH_NAMES[group as 'under-3'] ?? group;
  return FORM_NAMES[group] ?? group;
}

const percent = (share: number): string =>
  `${share < 0 ? '−' : '+'}${Math.round(Math.abs(share) * 100)} %`;

/** What a link with tags stood in: the update, or how many it may have been. */
export function linkedUpdateLabel(updates: readonly LinkedUpdate[]): string | undefined {
  const [first] = updates;
  if (!first) return undefined;
  if (updates.length > 1) return `${plural(updates.length, 'update', 'updates')} at ${first.place}`;
  const on = formatDate(new Date(first.at).toISOString());
  return `${FORM_NAMES[first.form] ?? 'Update'} at ${first.place}, ${on}`;
}

/** What can be said of a group: with its bounds where it is clear, and that it is not where it is not. */
export function claimMessage({ effect, low, high, isClear }: GroupClaim): string {
  if (!isClear) return 'no clear difference';
  return `${percent(effect)} (between ${percent(low)} and ${percent(high)})`;
}

/** How an item does beside others of its age: `3.2 × the usual`. */
export function timesUsual(total: number, usual: number): string {
  const times = (total + 1) / (usual + 1);
  const shown = times >= 10 ? Math.round(times) : times.toFixed(1);
  return `${shown} × the usual ${Math.round(usual).toLocaleString('en')}`;
}

export const ageMessage = (days: number): string =>
  days < 60
    ? plural(Math.max(1, Math.round(days)), 'day', 'days')
    : days < 730
      ? plural(Math.round(days / 30.44), 'month', 'months')
      : plural(Math.round(days / 365.25), 'year', 'years');

const MOMENTS: Record<Moment['side'], Partial<Record<Moment['what'], string>>> = {
  video: { published: 'Video published', changed: 'Video changed' },
  post: {
    published: 'Post published',
    changed: 'Post changed',
    embedded: 'Video put into the post',
    comments: 'Comments added to the post'
  },
  update: { told: 'Shared' }
};
export const momentMessage = ({ side, what }: Moment): string => MOMENTS[side][what] ?? 'Changed';

/**
 * Where visitors came from.
 * @param titleOf the title of a video by its id
 * @param linkOf what a set of link tags belongs to
 */
export function sourceMessage(
  source: string,
  titleOf: (id: string) => string | undefined,
  linkOf: (tags: string) => string | undefined
): string {
  const cut = source.indexOf(' ');
  const [kind, rest] = cut < 0 ? [source, ''] : [source.slice(0, cut), source.slice(cut + 1)];
  switch (kind) {
    case 'direct':
      return 'Typed, bookmarked or from an app';
    case 'blog':
      return 'Other pages of the blog';
    case 'video':
      return `Page of the video “${titleOf(rest) ?? 'no longer here'}”`;
    case 'tags':
      return linkOf(rest) ?? `Link with ${tagWords(rest)}`;
    case 'site':
      return rest;
    default:
      return 'Others';
  }
}

const tagWords = (tags: string): string =>
  [...new URLSearchParams(tags)]
    .map(([name, value]) => `${name.replace(/^utm_/, '')} “${value}”`)
    .join(', ');
