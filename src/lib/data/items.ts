import { itemSchema, type Item } from '$lib/core/model/item.ts';
import { db } from './db.ts';
import type { Body } from '$lib/core/model/rows.ts';

/** What a reading of a place found there. */
export interface Reading {
  items: Item[];
  bodies: Body[];
  /** Whether an item that is not among them would be, if it still stood there. */
  isListed(item: Item): boolean;
}

export const getItem = (id: string): Promise<Item | undefined> => db.items.get(id);
export const getBody = async (id: string): Promise<string> => (await db.bodies.get(id))?.html ?? '';
export const itemsByIds = async (ids: readonly string[]): Promise<Map<string, Item>> =>
  new Map(
    (await db.items.bulkGet([...new Set(ids)])).flatMap((item) => (item ? [[item.id, item]] : []))
  );
export const itemsOf = (placeIds: readonly string[]): Promise<Item[]> =>
  db.items.where('placeId').anyOf(placeIds).toArray();
export const countItems = (placeId: string): Promise<number> => db.items.where({ placeId }).count();
/** Those that came out, or will, between two moments. */
export const itemsPublished = (from: Date, to: Date): Promise<Item[]> =>
  db.items.where('published').between(from.toISOString(), to.toISOString()).toArray();
export const allItems = (): Promise<Item[]> => db.items.toArray();

/** Tags that items carry, those in most use first. */
export async function tagsInUse(): Promise<string[]> {
  const counts = new Map<string, number>();
  await db.items.each(({ tags }) => {
    for (const tag of tags) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  });
  return [...counts].sort(([, a], [, b]) => b - a).map(([tag]) => tag);
}

/** Ids of what is known of a place now: a reading that begins now can take out none but these. */
export const idsOf = (placeId: string): Promise<string[]> =>
  db.items.where({ placeId }).primaryKeys();

/**
 * Makes the items of a place what was read there, all at once. What was added by another reading
 * since this one began is left alone.
 * @param began ids that were known when the reading began
 */
export async function applyReading(
  placeId: string,
  reading: Reading,
  began: readonly string[]
): Promise<void> {
  const known = new Set(began);
  await db.transaction('rw', db.items, db.bodies, db.listPages, async () => {
    // A page that lists items is none: it is not paired, made into anything or told.
    const pages = new Set((await db.listPages.toArray()).map((page) => page.key).filter(Boolean));
    const items = reading.items.filter((item) => !pages.has(item.origin ?? ''));
    const read = new Set(items.map((item) => item.id));
    const before = await db.items.where({ placeId }).toArray();
    const gone = before
      .filter((item) => known.has(item.id) && !read.has(item.id) && reading.isListed(item))
      .map((item) => item.id);
    await db.items.bulkDelete(gone);
    await db.bodies.bulkDelete(gone);
    await db.items.bulkPut(items.map((item) => itemSchema.parse(item)));
    await db.bodies.bulkPut(reading.bodies.filter((body) => read.has(body.id)));
  });
}

/** The item of a place that carries a key of ours, or undefined. */
export const itemByOrigin = async (placeId: string, key: string): Promise<Item | undefined> =>
  (await db.items.where({ placeId }).toArray()).find((item) => item.origin === key);

export async function removeItem(id: string): Promise<void> {
  await db.transaction('rw', db.items, db.bodies, async () => {
    await db.items.delete(id);
    await db.bodies.delete(id);
  });
}
