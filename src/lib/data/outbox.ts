import {
  approve as approveEntry,
  changeRequest,
  keepTheirs,
  mergeSaved,
  newEntry,
  outboxEntrySchema,
  overwriteTheirs,
  retryNow,
  stopTrying,
  type OutboxEntry,
  type OutboxState
} from '$lib/core/delivery/outbox.ts';
import {
  isPost,
  isUpdate,
  isVideo,
  type Payload,
  type PostPayload,
  type VideoPayload
} from '$lib/core/delivery/payload.ts';
import type { EntryStore } from '$lib/core/delivery/deliver.ts';
import { transferSchema, type Transfer } from '$lib/core/delivery/transfer.ts';
import type { Template } from '$lib/core/article/template/template.ts';
import { db } from './db.ts';
import type { Work } from '$lib/core/model/rows.ts';

/** What is to be published, and where. `url` is given where it stands there already. */
export type PublishRequest = Pick<OutboxEntry, 'key' | 'itemId' | 'placeId' | 'payload'> &
  Partial<Pick<OutboxEntry, 'url'>>;

export interface PublishOptions {
  /** Milliseconds since 1970: what is to go out later waits until then. */
  notBefore?: number;
  /** It waits until it is approved. */
  isForReview?: boolean;
}

/** Writes down what is to be published. The same key again changes what is wanted; nothing is doubled. */
export const requestPublish = (
  request: PublishRequest,
  now: number,
  options?: PublishOptions
): Promise<OutboxEntry> => db.transaction('rw', db.outbox, () => putRequest(request, now, options));

/** The same for several that belong together, such as the parts of a thread: all of them or none. */
export const requestPublishAll = (
  requests: readonly PublishRequest[],
  now: number,
  options?: PublishOptions
): Promise<void> =>
  db.transaction('rw', db.outbox, async () => {
    for (const request of requests) await putRequest(request, now, options);
  });

/** The same for a post; its layout is kept for the next one of its channel, and its draft is done. */
export const requestPost = (
  request: PublishRequest,
  done: { channelId: string; template: Template; draftId: string },
  now: number
): Promise<void> =>
  db.transaction('rw', db.outbox, db.templates, db.drafts, async () => {
    await putRequest(request, now);
    await db.templates.put({ placeId: done.channelId, template: done.template });
    await db.drafts.delete(done.draftId);
  });

/**
 * The same for an item that is brought up to date over what stands at its place, as the user has seen it:
 * an undo brings that back.
 * @param there what stands at the place, as a payload, and its fingerprint where it has one
 * @param work of a post, the edited text with which the desk goes on; of the rest what is kept stays
 */
export const requestUpdate = <P extends PostPayload | VideoPayload>(
  key: string,
  payload: P,
  there: { payload: P; fingerprint: string },
  now: number,
  work?: Work
): Promise<void> =>
  db.transaction('rw', db.outbox, db.work, async () => {
    const known = await db.outbox.get(key);
    if (!known) return;
    const wanted = changeRequest(known, { wanted: 'published', payload }, now);
    const entry = outboxEntrySchema.parse({
      ...wanted,
      findings: [],
      sent: there.payload,
      held: there.fingerprint,
      seen: ''
    });
    await db.outbox.put(entry);
    if (!work) return;
    const kept = (await db.work.get(work.id)) ?? work;
    await db.work.put({ ...kept, edited: work.edited });
  });

/** The same for a video with the file that follows it. */
export const requestVideo = (
  request: PublishRequest,
  transfer: Transfer | null,
  now: number
): Promise<void> =>
  db.transaction('rw', db.outbox, db.transfers, async () => {
    await putRequest(request, now);
    if (transfer) await db.transfers.put(transferSchema.parse(transfer));
  });

/** Within a transaction that writes to the outbox. */
export async function putRequest(
  request: PublishRequest,
  now: number,
  { notBefore = now, isForReview = false }: PublishOptions = {}
): Promise<OutboxEntry> {
  const known = await db.outbox.get(request.key);
  const payload = request.payload as Payload;
  const wanted = known
    ? changeRequest(known, { wanted: 'published', payload }, now)
    : newEntry(request, now);
  const entry = outboxEntrySchema.parse({
    ...wanted,
    findings: [],
    nextTry: Math.max(wanted.nextTry, notBefore),
    state: isForReview ? 'in-review' : wanted.state
  });
  await db.outbox.put(entry);
  return entry;
}

export const requestRemove = (key: string, now: number): Promise<OutboxEntry | null> =>
  change(key, (entry) => entry && changeRequest(entry, { wanted: 'removed' }, now));

/** Forgets a request, and what it did at its place: nothing is left of it there. */
export const forgetEntry = (key: string): Promise<void> => db.outbox.delete(key);

/** Brings back what stood there before the last change; where nothing did, the item is to go. */
export const requestUndo = (key: string, now: number): Promise<OutboxEntry | null> =>
  change(key, (entry) => {
    // While somebody else's version stands there, the user chooses first.
    if (!entry || entry.theirs) return null;
    // What was wanted last and never arrived is called off: what stands there is what was sent.
    const isThere = entry.publishedRevision === entry.revision;
    const payload = isThere ? entry.sentBefore : entry.sent;
    return changeRequest(
      entry,
      payload ? { wanted: 'published', payload } : { wanted: 'removed' },
      now
    );
  });

/** What to do about a post that somebody changed at its place. */
export const resolveTheirs = (
  key: string,
  choice: 'keep' | 'overwrite',
  now: number
): Promise<OutboxEntry | null> =>
  change(
    key,
    (entry) => entry && (choice === 'keep' ? keepTheirs(entry, now) : overwriteTheirs(entry, now))
  );

/** Puts an entry back as it was before somebody else's version was agreed to, unless it went on since. */
export const reopenTheirs = (before: OutboxEntry): Promise<unknown> =>
  db.outbox
    .where({ key: before.key })
    .filter((entry) => entry.revision === before.revision && entry.state === 'published')
    .modify((entry) => {
      Object.assign(entry, before);
    });

/** Notes what a place holds of items that were made here, by their keys. */
export const noteSeen = (placeId: string, held: ReadonlyMap<string, string>): Promise<unknown> =>
  db.outbox
    .where({ placeId })
    .filter((e) => e.state === 'published' && (held.get(e.key) ?? '') !== (e.seen ?? ''))
    .modify((entry) => {
      entry.seen = held.get(entry.key) ?? '';
    });

export const stopEntry = (key: string, now: number): Promise<OutboxEntry | null> =>
  change(key, (entry) => entry && stopTrying(entry, now));

export const retryEntry = (key: string, now: number): Promise<OutboxEntry | null> =>
  change(key, (entry) => entry && retryNow(entry, now));

/**
 * Gives what a lane has planned of an item its time, or leaves it to the lane again.
 * @returns how many of its entries were still planned
 */
export const pinItem = (laneId: string, itemId: string, pin: OutboxEntry['pin']): Promise<number> =>
  db.outbox
    .where('[laneId+state]')
    .equals([laneId, 'planned'])
    .filter((entry) => entry.itemId === itemId)
    .modify((entry) => {
      entry.pin = pin;
    });

/**
 * Gives what waits for its time, and was not tried yet, another.
 * @param at milliseconds since 1970
 * @returns how many still waited: one or none
 */
export const sendAt = (key: string, at: number): Promise<number> =>
  db.outbox
    .where({ key })
    .filter((entry) => entry.state === 'waiting' && entry.attempts === 0)
    .modify((entry) => {
      entry.nextTry = at;
    });

/** Asks its place to show something that has a date there on another. @param at milliseconds since 1970 */
export const redate = (key: string, at: number, now: number): Promise<OutboxEntry | null> =>
  change(key, (entry) => {
    // A change that is still on its way gives way to this one.
    if (!entry || !['published', 'waiting', 'sending'].includes(entry.state)) return null;
    const { payload } = entry;
    const date = new Date(at).toISOString();
    if (isPost(payload) && payload.status === 'dated')
      return changeRequest(entry, { wanted: 'published', payload: { ...payload, date } }, now);
    if (isVideo(payload) && payload.publishAt)
      return changeRequest(
        entry,
        { wanted: 'published', payload: { ...payload, publishAt: date } },
        now
      );
    return null;
  });

/** Sends what waits for review. */
export const approve = (key: string, now: number): Promise<OutboxEntry | null> =>
  change(key, (entry) => entry && approveEntry(entry, now));

/**
 * What was posted by hand is closed with the address it got.
 * @returns whether it was open until now
 */
export const closeWith = (key: string, answer: string): Promise<boolean> =>
  db.transaction('rw', db.outbox, async () => {
    const entry = await db.outbox.get(key);
    if (!entry || entry.answer === answer) return false;
    await db.outbox.put(outboxEntrySchema.parse({ ...entry, answer }));
    return true;
  });

function change(
  key: string,
  apply: (entry: OutboxEntry | null) => OutboxEntry | null
): Promise<OutboxEntry | null> {
  return db.transaction('rw', db.outbox, async () => {
    const entry = apply((await db.outbox.get(key)) ?? null);
    if (entry) await db.outbox.put(outboxEntrySchema.parse(entry));
    return entry;
  });
}

export const entryStore: EntryStore = {
  load: async (key) => (await db.outbox.get(key)) ?? null,
  async save(learned) {
    await db.transaction('rw', db.outbox, async () => {
      const stored = (await db.outbox.get(learned.key)) ?? null;
      await db.outbox.put(outboxEntrySchema.parse(mergeSaved(stored, learned)));
    });
  }
};

export const getEntry = (key: string): Promise<OutboxEntry | undefined> => db.outbox.get(key);
export const getEntries = async (keys: readonly string[]): Promise<OutboxEntry[]> =>
  (await db.outbox.bulkGet([...keys])).filter((e) => e !== undefined);
export const allEntries = (): Promise<OutboxEntry[]> => db.outbox.toArray();
export const entriesOfItem = (itemId: string): Promise<OutboxEntry[]> =>
  db.outbox.where({ itemId }).toArray();
export const entriesOfLane = (laneId: string): Promise<OutboxEntry[]> =>
  db.outbox.where({ laneId }).toArray();
export const entriesIn = (state: OutboxState): Promise<OutboxEntry[]> =>
  db.outbox.where({ state }).toArray();
export const countIn = (state: OutboxState): Promise<number> => db.outbox.where({ state }).count();

/** Entries that wait for their time or were left in the middle by a tab that closed. */
export const pendingKeys = async (): Promise<{ key: string; nextTry: number }[]> =>
  (await db.outbox.where('state').anyOf('waiting', 'sending').toArray())
    // What a lane sends is worked on at the pace of the lane.
    .filter((e) => !e.laneId || e.wanted === 'removed')
    .map(({ key, nextTry }) => ({ key, nextTry }));

/** What was handed off to be posted by hand and has not come back. */
export async function openHandOffs(): Promise<OutboxEntry[]> {
  const ids = new Set((await db.networks.filter((n) => n.isByHand).toArray()).map((n) => n.id));
  if (ids.size === 0) return [];
  return (await entriesIn('published')).filter(
    (e) => ids.has(e.placeId) && isUpdate(e.payload) && !e.answer
  );
}
