import { db } from './db.ts';
import type { Details } from './rows.ts';

export const getDetails = async (id: string): Promise<Details | null> =>
  (await db.details.get(id)) ?? null;

export const detailsOf = async (ids: readonly string[]): Promise<Details[]> =>
  (await db.details.bulkGet([...ids])).filter((d) => d !== undefined);

/**
 * Changes what is known of a video's page, starting from nothing where nothing is known yet.
 * @returns what is known now
 */
export function patchDetails(id: string, patch: Partial<Omit<Details, 'id'>>): Promise<Details> {
  return db.transaction('rw', db.details, async () => {
    const known = (await db.details.get(id)) ?? {
      id,
      cues: [],
      chapters: [],
      seekTo: '',
      read: ''
    };
    const details = { ...known, ...patch };
    await db.details.put(details);
    return details;
  });
}
