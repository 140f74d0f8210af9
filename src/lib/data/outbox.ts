import {
  mergeSaved,
  newEntry,
  outboxEntrySchema,
  release,
  retryNow,
  wantAnew,
  type OutboxEntry,
  type Payload
} from '$lib/core/lanes/outbox.ts';
import type { Shelf } from '$lib/core/lanes/settle.ts';
import { db } from './db.ts';

/**
 * Writes down what is to be placed. The same key again changes what is wanted; nothing is doubled.
 * @param when.notBefore milliseconds since 1970; what is to go out later waits until then
 * @param when.isHeld it waits until it is let go
 */
export function wantPlaced(
  fields: Pick<OutboxEntry, 'key' | 'itemId' | 'placeId' | 'payload'>,
  now: number,
  { notBefore = now, isHeld = false } = {}
): Promise<OutboxEntry> {
  return change(fields.key, (entry) => {
    const wanted = entry
      ? wantAnew(entry, { wanted: 'placed', payload: fields.payload as Payload }, now)
      : newEntry(fields, now);
    const nextTry = Math.max(wanted.nextTry, notBefore);
    return { ...wanted, nextTry, state: isHeld ? 'in-review' : wanted.state };
  }) as Promise<OutboxEntry>;
}

export const wantRemoved = (key: string, now: number): Promise<OutboxEntry | null> =>
  change(key, (entry) => entry && wantAnew(entry, { wanted: 'removed' }, now));

export const tryAgain = (key: string, now: number): Promise<OutboxEntry | null> =>
  change(key, (entry) => entry && retryNow(entry, now));

/** Lets what waits for review go out. */
export const letGo = (key: string, now: number): Promise<OutboxEntry | null> =>
  change(key, (entry) => entry && release(entry, now));

/** What was posted by hand is closed with the address it got. */
export const closeWith = (key: string, answer: string): Promise<OutboxEntry | null> =>
  change(key, (entry) => entry && { ...entry, answer });

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

export const shelf: Shelf = {
  load: async (key) => (await db.outbox.get(key)) ?? null,
  async save(learned) {
    await db.transaction('rw', db.outbox, async () => {
      const stored = (await db.outbox.get(learned.key)) ?? null;
      await db.outbox.put(outboxEntrySchema.parse(mergeSaved(stored, learned)));
    });
  }
};

/** Entries that wait for their time or were left in the middle by a tab that closed. */
export const unsettledKeys = async (): Promise<{ key: string; nextTry: number }[]> =>
  (await db.outbox.where('state').anyOf('waiting', 'sending').toArray())
    // What a lane lets out is worked on at the pace of the lane.
    .filter((e) => !e.laneId || e.wanted === 'removed')
    .map(({ key, nextTry }) => ({
      key,
      nextTry
    }));
