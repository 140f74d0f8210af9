import { htmlText } from '../text/html.ts';
import { type OutboxEntry } from '../delivery/outbox.ts';
import { isPost } from '../delivery/payload.ts';
import type { Item } from '../model/item.ts';
import type { Twin } from '../model/twin.ts';
import type { Candidate } from './filter.ts';
import type { Lane } from './lane.ts';
import { Likenesses } from './likeness.ts';

/** What the catalogue has that a lane may look at. */
export interface LaneCatalogue {
  /** Of the sources of the lane. */
  items: readonly Item[];
  /** Cleaned HTML, by item id. */
  bodies: ReadonlyMap<string, string>;
  /** Names of those whose place it is, by place id. */
  owners: ReadonlyMap<string, string>;
  twins: readonly Twin[];
  entries: readonly OutboxEntry[];
  /** What the channels call the items of the lane's playlists. */
  listed: ReadonlySet<string>;
}

/** Whether the filter of a lane counts words, for which it needs the bodies of items. */
export const countsWords = ({ filter }: Lane): boolean =>
  filter.fewestWords !== null || filter.mostWords !== null;

/** All items of a lane's sources with what the catalogue knows of them. Time grows with the texts. */
export function candidatesFrom(lane: Lane, catalogue: LaneCatalogue): Candidate[] {
  const { items, bodies, owners, listed } = catalogue;
  const twins = twinFacts(catalogue.twins);
  const made = madeTexts(catalogue.entries);
  const needsText = countsWords(lane);
  const candidates = items.map((item): Candidate => {
    const isCompared = item.kind === 'post' && item.origin === null && !made.isEmpty;
    const body = needsText || isCompared ? (bodies.get(item.id) ?? '') : '';
    const text = body ? htmlText(body) : item.summary;
    return {
      item,
      words: needsText ? (text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0) : 0,
      owner: owners.get(item.placeId) ?? '',
      likeMade: isCompared ? made.find(text) : null,
      isInPlaylist: listed.has(item.nativeId),
      twin: twins.get(item.id) ?? { other: null, isSetAside: false, isInHand: false }
    };
  });
  if (lane.make.kind === 'update') tieHalves(candidates, catalogue.twins);
  return candidates;
}

/** Tells the halves of twins of each other, where the lane reads both. */
function tieHalves(candidates: readonly Candidate[], twins: readonly Twin[]): void {
  const byId = new Map(candidates.map((c) => [c.item.id, c]));
  for (const { video, post } of twins) {
    const [one, other] = [byId.get(video?.id ?? ''), byId.get(post?.id ?? '')];
    if (one && other) [one.otherHalf, other.otherHalf] = [other, one];
  }
}

function twinFacts(all: readonly Twin[]): Map<string, Candidate['twin']> {
  const twins = new Map<string, Candidate['twin']>();
  for (const { video, post, standing, reason } of all) {
    const facts = {
      isSetAside: standing === 'set-aside',
      isInHand: reason.kind === 'on-the-desk' || reason.kind === 'in-the-booth'
    };
    if (video) twins.set(video.id, { ...facts, other: post?.title ?? null });
    if (post) twins.set(post.id, { ...facts, other: video?.title ?? null });
  }
  return twins;
}

/** The texts that were published by this application, to know them again without their marks. */
function madeTexts(entries: readonly OutboxEntry[]): Likenesses {
  const made = new Likenesses();
  for (const { payload, state } of entries)
    if (state === 'published' && isPost(payload)) made.add(payload.title, htmlText(payload.html));
  return made;
}
