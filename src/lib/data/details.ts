import { db } from './db.ts';
import { detailsMark, readMark, type DetailsMark } from '$lib/core/twins/detailsMark.ts';
import type { Details } from '$lib/core/model/rows.ts';

export const getDetails = async (id: string): Promise<Details | null> =>
  (await db.details.get(id)) ?? null;

export const detailsOf = async (ids: readonly string[]): Promise<Details[]> =>
  (await db.details.bulkGet([...ids])).filter((d) => d !== undefined);

/** Within a transaction that reads `details`: hashes of captions and chapters by video, without either. */
export async function detailsMarks(): Promise<Map<string, DetailsMark>> {
  const ordered = db.details.orderBy('mark');
  const [ids, marks] = await Promise.all([ordered.primaryKeys(), ordered.keys()]);
  return new Map(ids.map((id, i) => [id, readMark(String(marks[i]))]));
}

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
    const changed = { ...known, ...patch };
    const details = { ...changed, mark: detailsMark(changed) };
    await db.details.put(details);
    return details;
  });
}
