import type { Comment } from '$lib/core/comments/comment.ts';
import { db } from './db.ts';

export const commentsOf = (videoId: string): Promise<Comment[]> =>
  db.comments.where({ videoId }).toArray();

export const allComments = (): Promise<Comment[]> => db.comments.toArray();

/** How many comments wait for a decision. */
export const countOpenComments = (): Promise<number> =>
  db.comments
    .where({ choice: 'open' })
    .filter((c) => !c.isGone)
    .count();

/** Videos of which some comment is to be shown. */
export const videosWithShown = async (): Promise<string[]> => [
  ...new Set((await db.comments.where({ choice: 'bring' }).toArray()).map((c) => c.videoId))
];

/**
 * Takes over what was read of one video. What was decided of a comment stays.
 * @param isWhole whether a comment that was not read is no longer there
 * @param choose what is decided at once of those that are new
 */
export function saveComments(
  videoId: string,
  read: readonly Comment[],
  isWhole: boolean,
  choose: (comment: Comment) => Comment['choice'],
  now: string
): Promise<void> {
  return db.transaction('rw', db.comments, async () => {
    const known = new Map((await commentsOf(videoId)).map((c) => [c.id, c]));
    await db.comments.bulkPut(
      read.map((comment) => ({
        ...comment,
        choice: known.get(comment.id)?.choice ?? choose(comment)
      }))
    );
    const standing = new Set(read.map((c) => c.id));
    const gone = [...known.values()].filter((c) => isWhole && !c.isGone && !standing.has(c.id));
    await db.comments.bulkPut(gone.map((c) => ({ ...c, isGone: true, changed: now })));
  });
}

/**
 * Decides on comments.
 * @returns what was decided of them before
 */
export function chooseComments(
  ids: readonly string[],
  choice: Comment['choice'],
  now: string
): Promise<Comment[]> {
  return db.transaction('rw', db.comments, async () => {
    const before = (await db.comments.bulkGet([...ids])).filter((c) => c !== undefined);
    await db.comments.bulkPut(before.map((c) => ({ ...c, choice, changed: now })));
    return before;
  });
}

/** Of comments that were taken out of their post, those that it was still to show wait for a decision again. */
export async function reopenComments(ids: readonly string[]): Promise<void> {
  await db.comments
    .where('id')
    .anyOf(ids)
    .filter((c) => c.choice === 'bring')
    .modify({ choice: 'open' });
}

/** Decides as it was decided before. */
export function restoreChoices(before: readonly Comment[], now: string): Promise<void> {
  return db.transaction('rw', db.comments, async () => {
    for (const { id, choice } of before) await db.comments.update(id, { choice, changed: now });
  });
}
