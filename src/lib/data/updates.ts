import type { UpdateDraft } from '$lib/core/updates/draft.ts';
import { db } from './db.ts';

export const readUpdateDraft = (itemId: string): Promise<UpdateDraft | undefined> =>
  db.updates.get(itemId);

/** Keeps what `merge` makes of what is kept, in one transaction. */
export const updateUpdateDraft = (
  itemId: string,
  merge: (stored: UpdateDraft | null) => UpdateDraft
): Promise<unknown> =>
  db.transaction('rw', db.updates, async () =>
    db.updates.put(merge((await db.updates.get(itemId)) ?? null))
  );
