import type { UpdateDraft } from '$lib/core/updates/draft.ts';
import { db } from './db.ts';

export const readUpdateDraft = (itemId: string): Promise<UpdateDraft | undefined> =>
  db.updates.get(itemId);

export const saveUpdateDraft = (draft: UpdateDraft): Promise<unknown> => db.updates.put(draft);
