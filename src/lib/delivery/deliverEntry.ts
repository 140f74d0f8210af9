import { deliver } from '$lib/core/delivery/deliver.ts';
import { isKeyProblem } from '$lib/core/delivery/retry.ts';
import { type OutboxEntry } from '$lib/core/delivery/outbox.ts';
import {
  isChange,
  isPost,
  isUpdate,
  isVideo,
  type ChangePayload
} from '$lib/core/delivery/payload.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { JournalLine } from '$lib/core/model/journal.ts';
import { keyOfUid } from '$lib/core/model/origin.ts';
import { reopenComments } from '$lib/data/comments.ts';
import { itemByOrigin, removeItem } from '$lib/data/items.ts';
import { note } from '$lib/data/journal.ts';
import { keyLock } from '$lib/data/keyOfKeys.ts';
import {
  entriesOfItem,
  entryStore,
  forgetEntry,
  pendingKeys,
  requestRemove,
  requestUndo,
  resolveTheirs,
  retryEntry
} from '$lib/data/outbox.ts';
import { getPlace, patchPlace } from '$lib/data/places.ts';
import { recorded } from '$lib/data/steps.ts';
import { targetFor } from '$lib/places/adapter.ts';
import { readPlaces } from '$lib/work/read.ts';
import { attempt } from '$lib/work/tasks.svelte.ts';

/** Undoes the last publishing: brings back the version before, or removes what had none. */
export async function undoLast(key: string): Promise<void> {
  if (await requestUndo(key, Date.now())) await deliverEntry(key);
}

/** Settles what somebody changed at the place: theirs stays, or is overwritten as it was shown. */
export async function settleTheirs(key: string, choice: 'keep' | 'overwrite'): Promise<void> {
  const entry = await resolveTheirs(key, choice, Date.now());
  if (!entry) return;
  if (choice === 'overwrite') return deliverEntry(key);
  const { itemId, placeId, laneId, payload, url } = entry;
  await note({ what: 'kept-theirs', key, itemId, placeId, laneId, title: payload.title, url });
}

/** Takes back what was published: removes it at its place, or puts back what was changed. */
export async function undoEntry(key: string): Promise<void> {
  if (await requestRemove(key, Date.now())) await deliverEntry(key);
}

export async function retryNow(key: string): Promise<void> {
  if (await retryEntry(key, Date.now())) await deliverEntry(key);
}

/**
 * Works on an outbox entry, in this tab alone: a lock of the browser keeps other tabs off it, and
 * opens when the tab that holds it is closed or killed.
 */
export async function deliverEntry(key: string): Promise<void> {
  // It waits without using up attempts, and is taken up once the keys are unlocked.
  if ((await keyLock()) === 'locked') return;
  const entry = await navigator.locks.request(
    `outbox/${key}`,
    { ifAvailable: true },
    async (lock) => {
      if (!lock) return null;
      const before = await entryStore.load(key);
      const to = before && (await targetFor(before.placeId));
      if (!before || !to || (await isAfterUnsentPart(before))) return null;
      const after = await deliver(key, {
        store: entryStore,
        target: recorded(to.target, key),
        now: Date.now,
        chance: Math.random
      });
      if (after) await noteOutcome(before, after);
      return after;
    }
  );
  if (!entry) return;
  if (entry.state === 'waiting') {
    if (!isOfLane(entry)) wakeAt(key, entry.nextTry);
  } else await afterDelivery(entry);
}

/**
 * Whether an entry is a part of a thread whose part before it is not published yet. It waits without
 * using up attempts, and is sent when that one is published.
 */
async function isAfterUnsentPart({ payload, wanted }: OutboxEntry): Promise<boolean> {
  const previous = isUpdate(payload) ? payload.part?.after : '';
  if (!previous || wanted === 'removed') return false;
  const state = (await entryStore.load(previous))?.state;
  return state !== undefined && state !== 'published' && state !== 'removed';
}

/** Works on what was left undelivered, by this tab or by one that is gone. Called now and then. */
export async function deliverPending(): Promise<void> {
  for (const { key, nextTry } of await pendingKeys()) {
    if (nextTry <= Date.now()) await deliverEntry(key);
    else wakeAt(key, nextTry);
  }
}

/** Brings the catalogue up to date with what now stands at the place. */
async function afterDelivery(entry: OutboxEntry): Promise<void> {
  if (isUpdate(entry.payload)) {
    await continueThread(entry);
    return;
  }
  if (isVideo(entry.payload))
    void import('./transfers.ts').then((m) => m.continueTransfer(entry.key));
  const place = await getPlace(entry.placeId);
  // A reading that is stopped takes nothing back of what was delivered.
  if (place && (entry.state === 'published' || entry.state === 'removed'))
    await attempt(() => readPlaces(place, false));
}

/** The next part of a thread need not wait for its next attempt. */
async function continueThread({ key, itemId, placeId, state }: OutboxEntry): Promise<void> {
  if (state !== 'published') return;
  const { getNetwork } = await import('$lib/data/networks.ts');
  const network = await getNetwork(placeId);
  // What is left of the allowance has changed; where it cannot be read, the card says why.
  if (network && !network.isByHand) {
    const { checkNetwork } = await import('$lib/work/networks.ts');
    void attempt(() => checkNetwork(network));
  }
  const next = (await entriesOfItem(itemId)).find(
    (e) => isUpdate(e.payload) && e.payload.part?.after === key
  );
  if (!next) return;
  // An attempt that is under way began before its predecessor stood, and would put off the next.
  await navigator.locks.request(`outbox/${next.key}`, () => Promise.resolve());
  if ((await entryStore.load(next.key))?.state === 'waiting') await retryNow(next.key);
}

async function noteOutcome(before: OutboxEntry, after: OutboxEntry): Promise<void> {
  const { key, itemId, placeId, laneId, payload } = after;
  const line = { key, itemId, placeId, laneId, title: payload.title };
  const told = isChange(payload) ? CHANGES[payload.change.what] : undefined;
  if (after.state === 'published') {
    const isUpdated = isChange(payload) || before.publishedRevision > 0;
    const what = told ? told.done : isUpdated ? 'updated' : 'published';
    await note({ ...line, what, url: after.url });
  } else if (after.state === 'removed') {
    const what = told ? told.undone : isChange(payload) ? 'updated' : 'removed';
    await note({ ...line, what, url: before.url });
    const gone = isChange(payload) ? undefined : await itemByOrigin(placeId, key);
    if (gone) await removeItem(gone.id);
    if (isChange(payload) && payload.change.what === 'comments')
      await reopenComments(payload.change.comments.map((c) => keyOfUid(c.uid) ?? ''));
    if (isPost(payload) && before.url) await forgetCited(before.url, placeId);
  } else if (after.problem) {
    await note({ ...line, what: 'publish-failed', problem: after.problem });
    // A key that ended has ended for everything, and every view says so.
    if (isKeyProblem(after.problem)) await patchPlace(placeId, { problem: after.problem });
  }
}

/** Changes that the journal tells by a name of their own, as they were made and taken back. */
const CHANGES: Partial<
  Record<ChangePayload['change']['what'], Record<'done' | 'undone', JournalLine['what']>>
> = {
  embed: { done: 'embedded', undone: 'updated' },
  comments: { done: 'comments-brought', undone: 'comments-removed' }
};

/** Comments went with the post that showed them: one that comes in its place gets them anew. */
async function forgetCited(url: string, placeId: string): Promise<void> {
  const blog = await getPlace(placeId);
  if (blog) await forgetEntry(placementKey(url, 'comments', blog.url));
}

/** What a lane made is tried again by its lane, at its pace; taking it back waits for nothing. */
const isOfLane = ({ laneId, wanted }: Pick<OutboxEntry, 'laneId' | 'wanted'>): boolean =>
  laneId !== '' && wanted === 'published';

const wakers = new Map<string, ReturnType<typeof setTimeout>>();

function wakeAt(key: string, time: number): void {
  clearTimeout(wakers.get(key));
  wakers.set(
    key,
    // A timer cannot wait for more than 24 days; it looks again before.
    setTimeout(() => void deliverEntry(key), Math.min(86_400_000, Math.max(50, time - Date.now())))
  );
}
