import { db } from './db.ts';

export const setAside = (itemId: string, at: string): Promise<unknown> =>
  db.decisions.put({ id: itemId, kind: 'set-aside', at });

export const restore = (itemId: string): Promise<void> => db.decisions.delete(itemId);

export const acceptTitles = (
  videoId: string,
  postId: string,
  titles: { video: string; post: string },
  at: string
): Promise<unknown> =>
  db.decisions.put({ id: `${videoId} ${postId}`, kind: 'accepted', at, titles });
