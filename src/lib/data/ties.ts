import { tieId, tieSchema, type Tie } from '$lib/core/model/tie.ts';
import { db } from './db.ts';

/** Newest first. */
export const allTies = async (): Promise<Tie[]> =>
  (await db.ties.toArray()).sort((a, b) => (a.at < b.at ? 1 : -1));

/**
 * Writes down what belongs together, or does not, all at once.
 * @returns what was decided before of the same videos and posts, for an undo
 */
export function decideTies(ties: readonly Omit<Tie, 'id'>[]): Promise<Tie[]> {
  const rows = ties.map((tie) => tieSchema.parse({ ...tie, id: tieId(tie.video, tie.post) }));
  return db.transaction('rw', db.ties, async () => {
    const before = await db.ties.bulkGet(rows.map((row) => row.id));
    await db.ties.bulkPut(rows);
    return before.filter((tie) => tie !== undefined);
  });
}

/** Makes ties what they were before; those that were not there are taken out. */
export function restoreTies(ids: readonly string[], before: readonly Tie[]): Promise<void> {
  return db.transaction('rw', db.ties, async () => {
    await db.ties.bulkDelete([...ids]);
    await db.ties.bulkPut([...before]);
  });
}
