import type { ComposedPost } from '$lib/core/article/compose.ts';
import { isUpdate, isVideo, type OutboxEntry, type PostPayload } from '$lib/core/lanes/outbox.ts';
import { settle } from '$lib/core/lanes/settle.ts';
import type { Item } from '$lib/core/model/item.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import { PlaceError, type Place } from '$lib/core/model/place.ts';
import { db, type Draft } from '$lib/data/db.ts';
import { note } from '$lib/data/journal.ts';
import { removeItem } from '$lib/data/items.ts';
import { noted } from '$lib/data/steps.ts';
import { shelf, tryAgain, unsettledKeys, wantPlaced, wantRemoved } from '$lib/data/outbox.ts';
import { blogFor, targetFor } from '$lib/places/adapter.ts';
import { coreWorker } from '$lib/workers/core.ts';
import { readPlaces } from './read.ts';

/** What is sent for a composed post. */
export function toPayload(post: ComposedPost, draft: Pick<Draft, 'status' | 'on'>): PostPayload {
  const { title, html, slug, excerpt, author, categories, tags, comments, picture } = post;
  return {
    ...{ title, html, slug, excerpt, author, categories, tags, comments },
    picture: picture && { url: picture.url, alt: picture.alt },
    status: draft.status,
    date: draft.status === 'dated' && draft.on ? new Date(draft.on).toISOString() : post.date
  };
}

/** The key of a video's post at a blog, the same on every machine. */
export const postKey = (video: Item, blog: Pick<Place, 'url'>): string =>
  placementKey(video.url || video.nativeId, 'post', blog.url);

/** Writes a post into the outbox, then sends it. The desk is cleared; the template is kept. */
export async function placePost(
  entry: { key: string; itemId: string; placeId: string; payload: PostPayload },
  channelId: string,
  draft: Draft
): Promise<void> {
  await wantPlaced(entry, Date.now());
  await db.templates.put({ placeId: channelId, template: structuredClone(draft.template) });
  await db.drafts.delete(draft.id);
  await coreWorker().pairAgain();
  void workOn(entry.key);
}

export async function undoPost(key: string): Promise<void> {
  if (await wantRemoved(key, Date.now())) await workOn(key);
}

export async function retryPost(key: string): Promise<void> {
  if (await tryAgain(key, Date.now())) await workOn(key);
}

/**
 * Works on an outbox entry, in this tab alone: a lock of the browser keeps other tabs off it, and
 * falls open when the tab that holds it is closed or killed.
 */
export async function workOn(key: string): Promise<void> {
  const entry = await navigator.locks.request(
    `outbox/${key}`,
    { ifAvailable: true },
    async (lock) => {
      if (!lock) return null;
      const before = await shelf.load(key);
      const to = before && (await targetFor(before.placeId));
      if (!before || !to) return null;
      const after = await settle(key, {
        shelf,
        target: noted(to.target, key),
        now: Date.now,
        chance: Math.random
      });
      if (after) await noteOutcome(before, after, before.placeId);
      return after;
    }
  );
  if (!entry) return;
  if (entry.state === 'waiting') {
    if (!isOfLane(entry)) wakeAt(key, entry.nextTry);
  } else await afterwards(entry);
}

/** Brings the twin up to date with what now stands at the blog. */
async function afterwards(entry: OutboxEntry): Promise<void> {
  if (isUpdate(entry.payload)) {
    await goOn(entry);
    return;
  }
  await coreWorker().pairAgain();
  if (isVideo(entry.payload)) void import('./transfer.ts').then((m) => m.carryOn(entry.key));
  const place = await db.places.get(entry.placeId);
  if (place && (entry.state === 'placed' || entry.state === 'removed')) await readPlaces(place);
}

/** The next part of a thread need not wait for its next try. */
async function goOn({ key, itemId, placeId, state }: OutboxEntry): Promise<void> {
  if (state !== 'placed') return;
  const network = await db.networks.get(placeId);
  // What is left of the allowance has changed; where it cannot be read, the card says why.
  if (network && !network.isByHand)
    void import('./networks.ts').then((m) => m.checkNetwork(network)).catch(() => null);
  const entries = await db.outbox.where({ itemId }).toArray();
  const next = entries.find((e) => isUpdate(e.payload) && e.payload.part?.after === key);
  if (next?.state === 'waiting') await retryPost(next.key);
}

async function noteOutcome(
  before: OutboxEntry,
  after: OutboxEntry,
  placeId: string
): Promise<void> {
  const line = {
    key: after.key,
    itemId: after.itemId,
    placeId,
    title: after.payload.title,
    laneId: after.laneId
  };
  if (after.state === 'placed') {
    const what = before.placedRevision > 0 ? 'replaced' : 'placed';
    await note({ ...line, what, url: after.url });
  } else if (after.state === 'removed') {
    await note({ ...line, what: 'removed', url: before.url });
    const items = await db.items.where({ placeId }).toArray();
    const gone = items.find((item) => item.origin === after.key);
    if (gone) await removeItem(gone.id);
  } else if (after.problem) {
    await note({ ...line, what: 'placing-failed', problem: after.problem });
  }
}

/** What a lane made is tried again by its lane, at its pace; taking it back waits for nothing. */
const isOfLane = ({ laneId, wanted }: Pick<OutboxEntry, 'laneId' | 'wanted'>): boolean =>
  laneId !== '' && wanted === 'placed';

const wakers = new Map<string, ReturnType<typeof setTimeout>>();

function wakeAt(key: string, time: number): void {
  clearTimeout(wakers.get(key));
  wakers.set(
    key,
    // A timer cannot wait for more than 24 days; it looks again before.
    setTimeout(() => void workOn(key), Math.min(86_400_000, Math.max(50, time - Date.now())))
  );
}

/** Takes up what was left unsettled, by this tab or by one that is gone. Called now and then. */
export async function workOffOutbox(): Promise<void> {
  for (const { key, nextTry } of await unsettledKeys()) {
    if (nextTry <= Date.now()) await workOn(key);
    else wakeAt(key, nextTry);
  }
}

/** Gives the post of a drifted twin the title of its video, when the blog lets us. */
export async function takeVideoTitle(video: Item, post: Item): Promise<void> {
  const place = await db.places.get(post.placeId);
  const adapter = await blogFor(place);
  if (!place || !adapter) throw new PlaceError({ kind: 'key-missing', url: post.url });
  await adapter.retitle(post.url, video.title);
  await note({
    what: 'replaced',
    itemId: post.id,
    placeId: place.id,
    title: video.title,
    url: post.url
  });
  await readPlaces(place);
}
