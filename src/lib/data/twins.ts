import type { Item } from '$lib/core/model/item.ts';
import type { Twin } from '$lib/core/model/twin.ts';
import type { PairingFacts } from '$lib/core/twins/circumstances.ts';
import { db } from './db.ts';
import { detailsMarks } from './details.ts';

export const getTwin = (id: string): Promise<Twin | undefined> => db.twins.get(id);

/** The twin that an item is a half of, by the id of either. */
export const twinOfItem = async (id: string): Promise<Twin | undefined> =>
  (await getTwin(id)) ??
  (await db.twins
    .filter(({ post, otherPosts }) => post?.id === id || otherPosts.includes(id))
    .first());

export const getTwins = async (ids: readonly string[]): Promise<Twin[]> =>
  (await db.twins.bulkGet([...new Set(ids)])).filter((twin) => twin !== undefined);

/** Twins, newest first; all of them where no number is given. */
export function newestTwins(most?: number): Promise<Twin[]> {
  const newest = db.twins.orderBy('date').reverse();
  return (most === undefined ? newest : newest.limit(most)).toArray();
}

/** Twins with some words in the title of one of their halves. */
export const findTwins = (words: string, most: number): Promise<Twin[]> =>
  db.twins
    .filter(({ video, post }) =>
      [video, post].some((half) => half?.title.toLowerCase().includes(words))
    )
    .limit(most)
    .toArray();

/** Videos of a channel with a post that was made here, whose captions were read before the channel changed them. */
export function videosToReadAgain(channelId: string): Promise<Item[]> {
  return db.transaction('r', db.items, db.twins, db.details, async () => {
    const [items, marks] = await Promise.all([
      db.items.where({ placeId: channelId }).toArray(),
      detailsMarks()
    ]);
    const changed = items.filter((item) => {
      const mark = marks.get(item.id);
      return item.kind === 'video' && mark !== undefined && mark.asOf !== (item.updated ?? '');
    });
    const twins = await db.twins.bulkGet(changed.map((item) => item.id));
    return changed.filter((_, i) => twins[i]?.post?.isMade);
  });
}

/** All that pairing depends on, as it is at one moment. */
export function readForPairing(): Promise<{
  items: Item[];
  facts: PairingFacts;
  /** Their ids, the one connected first in front. */
  places: string[];
}> {
  const tables = [
    db.items,
    db.decisions,
    db.drafts,
    db.narrations,
    db.outbox,
    db.transfers,
    db.ties,
    db.places,
    db.baselines,
    db.makings,
    db.details
  ];
  return db.transaction('r', tables, async () => {
    const [items, decisions, drafts, narrations, entries, transfers, ties, linked, ...known] =
      await Promise.all([
        db.items.toArray(),
        db.decisions.toArray(),
        db.drafts.toArray(),
        db.narrations.toArray(),
        db.outbox.toArray(),
        db.transfers.toArray(),
        db.ties.toArray(),
        db.places.toArray(),
        db.baselines.toArray(),
        db.makings.toArray(),
        detailsMarks()
      ]);
    const [baselines, makings, details] = known;
    const places = linked.sort((a, b) => (a.linked < b.linked ? -1 : 1)).map((p) => p.id);
    const setAside = decisions.filter((d) => d.kind === 'set-aside');
    const accepted = decisions.flatMap(({ id, titles }) => (titles ? [{ id, titles }] : []));
    const facts = {
      setAside,
      accepted,
      drafts,
      narrations,
      entries,
      transfers,
      ties,
      videos: items.flatMap((item) => (item.kind === 'video' ? [item.id] : [])),
      baselines,
      makings,
      details,
      places: linked.map(({ id, checked, problem }) => ({ id, read: problem ? '' : checked }))
    };
    return { items, facts, places };
  });
}

/** Makes the twins what they were paired to, and writes only what changed. */
export function replaceTwins(twins: readonly Twin[]): Promise<{ twins: number; changed: number }> {
  return db.transaction('rw', db.twins, async () => {
    const before = new Map((await db.twins.toArray()).map((t) => [t.id, JSON.stringify(t)]));
    const changed = twins.filter((t) => before.get(t.id) !== JSON.stringify(t));
    for (const twin of twins) before.delete(twin.id);
    await db.twins.bulkDelete([...before.keys()]);
    await db.twins.bulkPut(changed);
    return { twins: twins.length, changed: changed.length + before.size };
  });
}
