import { db } from './db.ts';
import type { Decision } from '$lib/core/model/rows.ts';

export const setAside = (itemId: string, at: string): Promise<unknown> =>
  db.decisions.put({ id: itemId, kind: 'set-aside', at });

export const restore = (itemId: string): Promise<void> => db.decisions.delete(itemId);

/** @returns what had been decided of the two before, for an undo */
export const acceptTitles = (
  videoId: string,
  postId: string,
  titles: { video: string; post: string },
  at: string
): Promise<Decision | undefined> =>
  db.transaction('rw', db.decisions, async () => {
    const id = `${videoId} ${postId}`;
    const before = await db.decisions.get(id);
    await db.decisions.put({ id, kind: 'accepted', at, titles });
    return before;
  });

/** Makes a decision what it was before; one that was not there is taken out. */
export const restoreDecision = (id: string, before: Decision | undefined): Promise<unknown> =>
  before ? db.decisions.put(before) : db.decisions.delete(id);
