import { placeSchema, type Place } from '$lib/core/model/place.ts';
import { db } from './db.ts';
import { forgetKey, saveKey, sealKey } from './keys.ts';
import { patchRow } from './patchRow.ts';

export const getPlace = async (id: string): Promise<Place | null> =>
  (await db.places.get(id)) ?? null;
export const allPlaces = (): Promise<Place[]> => db.places.toArray();
export const placesOfKind = (kind: Place['kind']): Promise<Place[]> =>
  db.places.where({ kind }).toArray();

/** Channels first. */
export const placesByKind = (): Promise<Place[]> => db.places.orderBy('kind').reverse().toArray();

export const addPlace = (place: Place): Promise<unknown> => db.places.put(placeSchema.parse(place));

/** Changes some fields of a place; one that was disconnected meanwhile stays away. */
export const patchPlace = (id: string, patch: Partial<Place>): Promise<void> =>
  patchRow(db.places, placeSchema, id, patch);

/** Stores a key and what it allows; a place that was disconnected meanwhile keeps none. */
export async function savePlaceKey(id: string, key: string, patch: Partial<Place>): Promise<void> {
  const sealed = await sealKey(key);
  await db.transaction('rw', [db.places, db.keys], async () => {
    if (!(await db.places.get(id))) return;
    await saveKey(id, sealed);
    await patchPlace(id, { ...patch, hasKey: true });
  });
}

/** Forgets the key of a place and what it allowed. */
export const removePlaceKey = (id: string): Promise<void> =>
  db.transaction('rw', [db.places, db.keys], async () => {
    await forgetKey(id);
    const without = { hasKey: false, keyEnds: null, allowance: null, problem: null };
    await patchPlace(id, { ...without, rights: ['read'] });
  });

/** Titles of all places and networks, by their ids. */
export async function placeTitles(): Promise<ReadonlyMap<string, string>> {
  const all = [...(await db.places.toArray()), ...(await db.networks.toArray())];
  return new Map(all.map(({ id, title }) => [id, title]));
}

/** Takes a place out, with its key and what was read there. What was published there stays there. */
export async function removePlace(placeId: string): Promise<void> {
  const tables = [db.places, db.keys, db.items, db.bodies, db.templates, db.playlists];
  await db.transaction('rw', tables, async () => {
    const ids = await db.items.where({ placeId }).primaryKeys();
    await db.items.bulkDelete(ids);
    await db.bodies.bulkDelete(ids);
    await db.templates.delete(placeId);
    await db.playlists.where({ placeId }).delete();
    await forgetKey(placeId);
    await db.places.delete(placeId);
  });
}
