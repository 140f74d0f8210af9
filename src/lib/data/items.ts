import { itemSchema, type Item } from '$lib/core/model/item.ts';
import { db, type Body } from './db.ts';

/**
 * Makes the items of a place what was just read there.
 * @param isTold whether an item that was not read again would have been told, and so is gone
 */
export async function replaceItems(
  placeId: string,
  items: Item[],
  bodies: Body[],
  isTold: (item: Item) => boolean
): Promise<void> {
  const kept = new Set(items.map((item) => item.id));
  await db.transaction('rw', db.items, db.bodies, async () => {
    const before = await db.items.where({ placeId }).toArray();
    const gone = before.filter((item) => !kept.has(item.id) && isTold(item)).map((item) => item.id);
    await db.items.bulkDelete(gone);
    await db.bodies.bulkDelete(gone);
    await db.items.bulkPut(items.map((item) => itemSchema.parse(item)));
    await db.bodies.bulkPut(bodies);
  });
}

export const getItem = (id: string): Promise<Item | undefined> => db.items.get(id);

export const getBody = async (id: string): Promise<string> => (await db.bodies.get(id))?.html ?? '';

export async function removeItem(id: string): Promise<void> {
  await db.items.delete(id);
  await db.bodies.delete(id);
}
