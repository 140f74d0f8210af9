import type { ListPage } from '$lib/core/listPages/listPage.ts';
import { listPageSchema } from '$lib/core/listPages/listPage.ts';
import { onChange } from './changes.ts';
import { db } from './db.ts';
import { patchRow } from './patchRow.ts';

export const getListPage = (id: string): Promise<ListPage | undefined> => db.listPages.get(id);

/** By title. */
export const allListPages = async (): Promise<ListPage[]> =>
  (await db.listPages.toArray()).sort((a, b) => a.title.localeCompare(b.title));

export const addListPage = (page: ListPage): Promise<unknown> =>
  db.listPages.add(listPageSchema.parse(page));

/** Keeps what `merge` makes of what is kept, in one transaction; nothing where it is gone. */
export const updateListPage = (
  id: string,
  merge: (stored: ListPage) => ListPage
): Promise<unknown> =>
  db.transaction('rw', db.listPages, async () => {
    const stored = await db.listPages.get(id);
    if (stored) await db.listPages.put(listPageSchema.parse(merge(stored)));
  });

export const patchListPage = (id: string, patch: Partial<ListPage>): Promise<void> =>
  patchRow(db.listPages, listPageSchema, id, patch);

export const removeListPage = (id: string): Promise<void> => db.listPages.delete(id);

let follows = false;
let mayHaveChanged = true;

const followers = () =>
  db.listPages.filter((page) => page.isOn && page.key !== '' && page.problem === '');

/** Whether there are pages that follow what is read, and something changed that they may list. */
export async function mayPagesChange(): Promise<boolean> {
  if (!follows) onChange(['items', 'twins', 'playlists'], () => (mayHaveChanged = true));
  follows = true;
  return mayHaveChanged && (await followers().count()) > 0;
}

/** Those pages, which are taken for looked at from now on. */
export function takeStalePages(): Promise<ListPage[]> {
  mayHaveChanged = false;
  return followers().toArray();
}
