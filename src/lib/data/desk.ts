import type { Template } from '$lib/core/article/template/template.ts';
import { db } from './db.ts';
import type { Draft, Work } from './rows.ts';

/** What lies on the desk of a video: the draft of its post, and what was done by hand. */
export async function readDesk(videoId: string): Promise<{ draft?: Draft; work?: Work }> {
  const [draft, work] = await Promise.all([db.drafts.get(videoId), db.work.get(videoId)]);
  return { draft, work };
}

/** Keeps both in one go; since when the video lies on the desk stays as it was. */
export function saveDesk(draft: Draft, work: Work | null): Promise<void> {
  return db.transaction('rw', db.drafts, db.work, async () => {
    const before = await db.drafts.get(draft.id);
    await db.drafts.put({ ...draft, since: before?.since ?? draft.since });
    if (work) await db.work.put(work);
  });
}

export function clearDesk(videoId: string): Promise<void> {
  return db.transaction('rw', db.drafts, db.work, async () => {
    await db.drafts.delete(videoId);
    await db.work.delete(videoId);
  });
}

/** The layout of the last post that was made from a channel. */
export const lastTemplate = async (channelId: string): Promise<Template | undefined> =>
  (await db.templates.get(channelId))?.template;
