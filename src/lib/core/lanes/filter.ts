import { z } from 'zod';
import type { Item } from '../model/item.ts';
import type { Lane, LaneFilter } from './lane.ts';
import { hasWords, matches } from './search.ts';
import { rowOf } from './sheetRows.ts';

/** Why an item gives no poll, or no quiz. */
export const nothingWhySchema = z.enum([
  'no-poll',
  'language',
  'nothing-stated',
  'too-unsure',
  'too-long'
]);

export const dropReasonSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('other-creator'), creator: z.string() }),
  z.object({ kind: z.literal('not-searched') }),
  z.object({ kind: z.literal('not-listed') }),
  z.object({ kind: z.literal('not-in-playlist') }),
  z.object({ kind: z.literal('before-the-lane') }),
  z.object({ kind: z.literal('no-date') }),
  z.object({ kind: z.literal('too-old'), days: z.number() }),
  z.object({ kind: z.literal('not-out-yet') }),
  z.object({ kind: z.literal('not-public') }),
  z.object({ kind: z.literal('too-short'), seconds: z.number() }),
  z.object({ kind: z.literal('too-long'), seconds: z.number() }),
  z.object({ kind: z.literal('no-length') }),
  z.object({ kind: z.literal('language'), language: z.string() }),
  z.object({ kind: z.literal('no-captions') }),
  z.object({ kind: z.literal('no-picture') }),
  z.object({ kind: z.literal('not-own'), author: z.string() }),
  z.object({ kind: z.literal('no-permission'), author: z.string() }),
  z.object({ kind: z.literal('lacks-words') }),
  z.object({ kind: z.literal('has-word'), word: z.string() }),
  z.object({ kind: z.literal('too-few-words'), words: z.number() }),
  z.object({ kind: z.literal('too-many-words'), words: z.number() }),
  z.object({ kind: z.literal('no-such-tag') }),
  /** Made by this application or another like it: taking it would go round in a circle. */
  z.object({ kind: z.literal('made-item') }),
  /** Nearly the same as something that was made: its marks were lost on the way. */
  z.object({ kind: z.literal('like-a-made-item'), title: z.string() }),
  z.object({ kind: z.literal('has-twin'), title: z.string() }),
  /** Something that nothing ties to it yet surely is its other half. */
  z.object({ kind: z.literal('likely-twin'), title: z.string() }),
  /** The lane shares the other half of the same twin. */
  z.object({ kind: z.literal('other-half'), title: z.string() }),
  z.object({ kind: z.literal('in-hand') }),
  z.object({ kind: z.literal('set-aside') }),
  z.object({ kind: z.literal('made-already') }),
  /** Nothing of the lane's kind could be made of it. */
  z.object({ kind: z.literal('nothing-to-make'), why: nothingWhySchema }),
  /** The lane made far more of late than its source usually gives. */
  z.object({ kind: z.literal('rate-guard'), made: z.number() }),
  z.object({ kind: z.literal('enough-in-all'), most: z.number() })
]);
/** Why an item is left out. */
export type DropReason = z.infer<typeof dropReasonSchema>;

/** An item with what the catalogue knows of it. */
export interface Candidate {
  item: Item;
  /** Words of its text: of the body of a post, of the description of a video. */
  words: number;
  /** Of the place it was read from. */
  owner: string;
  /** How its twin stands: the title of its other half, and whether that is being made by hand. */
  twin: { other: string | null; isSetAside: boolean; isInHand: boolean };
  /** Title of what surely is its other half, though nothing ties the two yet. */
  likelyOther?: string | null;
  /** The other half of its twin, where the lane reads that as well. */
  otherHalf?: Candidate | null;
  /** Title of the made item that it resembles, or null. */
  likeMade: string | null;
  /** Whether one of the lane's playlists has it. */
  isInPlaylist: boolean;
}

const OPEN_LICENCE = /creativecommons\.org\/(?:licenses|publicdomain)\//i;
const DAY = 86_400_000;

/**
 * Whether a lane takes an item, by all that can be said of the item alone.
 * @returns the first reason against it, or null
 */
export function dropReason(candidate: Candidate, lane: Lane, now: number): DropReason | null {
  const { item, twin, likeMade } = candidate;
  const { source, filter, make } = lane;
  const { creators, search, sheet, playlists } = source;
  if (sheet && rowOf(sheet, item) === null) return { kind: 'not-listed' };
  if (playlists.length > 0 && !candidate.isInPlaylist) return { kind: 'not-in-playlist' };
  if (creators.length > 0 && !creators.some((c) => c.toLowerCase() === item.author.toLowerCase()))
    return { kind: 'other-creator', creator: item.author };
  if (!matches(item, search)) return { kind: 'not-searched' };
  if (item.origin !== null || item.madeFrom) return { kind: 'made-item' };
  if (likeMade !== null) return { kind: 'like-a-made-item', title: likeMade };
  if (twin.isSetAside) return { kind: 'set-aside' };
  // An update makes no half, so the other half does not stand in its way.
  if (make.kind !== 'update') {
    if (twin.isInHand) return { kind: 'in-hand' };
    if (twin.other !== null) return { kind: 'has-twin', title: twin.other };
  }
  return (
    byDate(candidate, lane, now) ??
    byRights(candidate, filter) ??
    byShape(candidate, filter) ??
    byWords(candidate, filter) ??
    byLikelyTwin(candidate, lane) ??
    byOtherHalf(candidate, lane, now)
  );
}

/** Whether a lane leaves out what surely has its other half: what is on a list was chosen by the user, whatever it is like. */
export const avoidsLikelyTwins = ({ make, source }: Lane): boolean =>
  make.kind !== 'update' && !source.sheet;

const byLikelyTwin = ({ likelyOther }: Candidate, lane: Lane): DropReason | null =>
  likelyOther && avoidsLikelyTwins(lane) ? { kind: 'likely-twin', title: likelyOther } : null;

/** Of a twin one half is shared: the one that came out first, unless the lane leaves that one out. */
function byOtherHalf({ item, otherHalf }: Candidate, lane: Lane, now: number): DropReason | null {
  if (lane.make.kind !== 'update' || !otherHalf) return null;
  const other = otherHalf.item;
  const [mine, its] = [item.published ?? '', other.published ?? ''];
  const isOtherFirst = its < mine || (its === mine && other.kind === 'video');
  if (!isOtherFirst || dropReason({ ...otherHalf, otherHalf: null }, lane, now)) return null;
  return { kind: 'other-half', title: other.title };
}

function byDate({ item }: Candidate, { filter, since }: Lane, now: number): DropReason | null {
  const published = item.published === null ? NaN : Date.parse(item.published);
  if (item.visibility === 'scheduled' || published > now) return { kind: 'not-out-yet' };
  const isDateAsked = filter.scope === 'new' || filter.notOlderThan !== null;
  if (Number.isNaN(published)) return isDateAsked ? { kind: 'no-date' } : null;
  if (filter.scope === 'new' && published < (since ?? now)) return { kind: 'before-the-lane' };
  const days = Math.floor((now - published) / DAY);
  if (filter.notOlderThan !== null && now - published > filter.notOlderThan * DAY)
    return { kind: 'too-old', days };
  return null;
}

function byRights({ item, owner }: Candidate, filter: LaneFilter): DropReason | null {
  if (filter.publicOnly && item.visibility !== 'public') return { kind: 'not-public' };
  const isOwn = !item.author || !owner || item.author.toLowerCase() === owner.toLowerCase();
  if (isOwn) return null;
  const { author } = item;
  if (filter.others === 'never') return { kind: 'not-own', author };
  if (OPEN_LICENCE.test(item.licence)) return null;
  const isPermitted = filter.others === 'permitted' && filter.permission.trim() !== '';
  return isPermitted ? null : { kind: 'no-permission', author };
}

function byShape({ item }: Candidate, filter: LaneFilter): DropReason | null {
  const { shortest, longest, languages } = filter;
  if (item.kind === 'video' && (shortest !== null || longest !== null)) {
    if (item.duration === null) return { kind: 'no-length' };
    const seconds = item.duration;
    if (shortest !== null && seconds < shortest) return { kind: 'too-short', seconds };
    if (longest !== null && seconds > longest) return { kind: 'too-long', seconds };
  }
  const spoken = (code: string) => code.toLowerCase().split('-')[0] ?? '';
  if (languages.length > 0 && !languages.some((l) => spoken(l) === spoken(item.language)))
    return { kind: 'language', language: item.language };
  if (filter.needsCaptions && item.kind === 'video' && item.captions.length === 0)
    return { kind: 'no-captions' };
  return filter.needsPicture && item.pictures.length === 0 ? { kind: 'no-picture' } : null;
}

function byWords({ item, words }: Candidate, filter: LaneFilter): DropReason | null {
  const text = `${item.title} \n ${item.summary}`;
  if (filter.keep.length > 0 && !filter.keep.some((w) => hasWords(text, w)))
    return { kind: 'lacks-words' };
  const word = filter.drop.find((w) => hasWords(text, w));
  if (word !== undefined) return { kind: 'has-word', word };
  if (filter.fewestWords !== null && words < filter.fewestWords)
    return { kind: 'too-few-words', words };
  if (filter.mostWords !== null && words > filter.mostWords)
    return { kind: 'too-many-words', words };
  const tags = item.tags.map((t) => t.toLowerCase());
  return filter.tags.length > 0 && !filter.tags.some((t) => tags.includes(t.toLowerCase()))
    ? { kind: 'no-such-tag' }
    : null;
}

/** The order in which a lane takes what is left. */
export function inOrder(candidates: readonly Candidate[], { scope }: LaneFilter): Candidate[] {
  const time = ({ item }: Candidate) => item.published ?? '';
  const oldestFirst = [...candidates].sort(
    (a, b) => time(a).localeCompare(time(b)) || (a.item.id < b.item.id ? -1 : 1)
  );
  if (scope === 'newest-first') return oldestFirst.reverse();
  // What nobody counts comes last.
  return scope === 'most-seen-first'
    ? oldestFirst.sort((a, b) => (b.item.views ?? -1) - (a.item.views ?? -1))
    : oldestFirst;
}
