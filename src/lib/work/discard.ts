import { v4 } from 'uuid';
import type { NewJournalLine } from '$lib/core/model/journal.ts';
import { EVERYTHING, restoreEverything } from '$lib/data/everything.ts';
import { note } from '$lib/data/journal.ts';
import { sendOrigins } from './start.ts';
import { bringBack, throwAway } from '$lib/data/trash.ts';

type About = Pick<NewJournalLine, 'what' | 'title' | 'itemId'>;

/** Throws some rows away, with a line in the journal. @returns their name, for an undo */
export async function discard(
  about: About,
  keys: Parameters<typeof throwAway>[1]
): Promise<string> {
  const trash = v4();
  await throwAway(trash, keys, new Date());
  await note({ ...about, trash });
  return trash;
}

/** Brings back what was thrown away. @returns whether it was still there */
export async function undoDiscard(trash: string, title: string): Promise<boolean> {
  const isEverything = trash === EVERYTHING;
  const isBack = await (isEverything ? restoreEverything() : bringBack(trash));
  if (isBack && isEverything) await sendOrigins();
  if (isBack) await note({ what: 'brought-back', title });
  return isBack;
}
