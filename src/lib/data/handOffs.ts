import { isUpdate, type OutboxEntry } from '$lib/core/lanes/outbox.ts';
import { db } from './db.ts';

/** What was handed off and has not come back. */
export async function openHandOffs(): Promise<OutboxEntry[]> {
  const ids = new Set((await db.networks.filter((n) => n.isByHand).toArray()).map((n) => n.id));
  if (ids.size === 0) return [];
  return (await db.outbox.where({ state: 'placed' }).toArray()).filter(
    (e) => ids.has(e.placeId) && isUpdate(e.payload) && !e.answer
  );
}
