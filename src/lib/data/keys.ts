import { db } from './db.ts';

/** The keys of places. They stand apart from everything that is exported, shown or noted. */
export const saveKey = (placeId: string, key: string): Promise<unknown> =>
  db.keys.put({ placeId, key });

export const readKey = async (placeId: string): Promise<string> =>
  (await db.keys.get(placeId))?.key ?? '';

export const forgetKey = (placeId: string): Promise<void> => db.keys.delete(placeId);
