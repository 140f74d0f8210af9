import { placeSchema, type Place } from '$lib/core/model/place.ts';
import { db } from './db.ts';
import { forgetKey } from './keys.ts';

export const savePlace = (place: Place): Promise<unknown> =>
  db.places.put(placeSchema.parse(place));

/** Notes what came of reading a place, and leaves all else of it as it is. */
export const noteRead = (id: string, read: Pick<Place, 'problem' | 'checked'>): Promise<unknown> =>
  db.places.update(id, read);

export const allPlaces = (): Promise<Place[]> => db.places.toArray();

/** Takes a place out, with its key and what was read there. What was placed there stays there. */
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
