import { db } from './db.ts';

/** A file kept in this browser, or null. */
export const keptFile = async (id: string): Promise<Blob | null> =>
  (await db.media.get(id))?.blob ?? null;
