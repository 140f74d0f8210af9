import type { OutboxEntry } from '$lib/core/delivery/outbox.ts';
import { isUpdate } from '$lib/core/delivery/payload.ts';
import type { Form } from '$lib/core/updates/draft.ts';
import { db } from './db.ts';

/** An update that stands at a place, or was posted there by hand. */
export interface PublishedUpdate {
  form: Form;
  placeId: string;
  /** Name of the place, or empty where it is not linked any more. */
  place: string;
  /** ISO 8601. */
  at: string;
}

/** What has been told of each item, by its id; the parts of a thread are one. */
export async function publishedByItem(): Promise<ReadonlyMap<string, PublishedUpdate[]>> {
  const names = new Map((await db.networks.toArray()).map((n) => [n.id, n.title]));
  const told = new Map<string, PublishedUpdate[]>();
  if (names.size === 0) return told;
  const entries = await db.outbox.where({ state: 'published' }).toArray();
  for (const { itemId, placeId, payload, updated } of entries) {
    if (!isUpdate(payload) || (payload.part?.number ?? 1) > 1) continue;
    const { form } = payload;
    const at = new Date(updated).toISOString();
    const line = { form, placeId, place: names.get(placeId) ?? '', at };
    told.set(itemId, [...(told.get(itemId) ?? []), line]);
  }
  return told;
}

/** Updates that stand at a network, whole: what came of them is asked there. */
export const publishedUpdatesAt = async (placeId: string): Promise<OutboxEntry[]> =>
  (await db.outbox.where({ placeId }).toArray()).filter(
    (entry) => entry.state === 'published' && isUpdate(entry.payload)
  );

/** Whether any network has an update from here. */
export async function hasPublishedUpdates(): Promise<boolean> {
  const ids = await db.networks.toCollection().primaryKeys();
  const known = new Set<string>(ids);
  return (
    ids.length > 0 && (await db.outbox.filter(({ placeId }) => known.has(placeId)).count()) > 0
  );
}
