import { placeSchema, type Place } from '$lib/core/model/place.ts';
import { db } from './db.ts';
import { forgetKey } from './keys.ts';

export const savePlace = (place: Place): Promise<unknown> =>
  db.places.put(placeSchema.parse(place));

export const allPlaces = (): Promise<Place[]> => db.places.toArray();

/** Takes a place out, with its key and what was read there. What was placed there stays there. */
export async function removePlace(placeId: string): Promise<void> {
  await db.transaction('rw', [db.places, db.keys, db.items, db.bodies, db.templates], async () => {
    const ids = await db.items.where({ placeId }).primaryKeys();
    await db.items.bulkDelete(ids);
    await db.bodies.bulkDelete(ids);
    await db.templates.delete(placeId);
    await forgetKey(placeId);
    await db.places.delete(placeId);
  });
}
