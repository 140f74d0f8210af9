import type { LibraryPicture } from '$lib/core/narration/pictures/library.ts';
import { db } from './db.ts';

export const libraryPictures = (): Promise<LibraryPicture[]> => db.library.toArray();
export const saveLibraryPictures = (pictures: readonly LibraryPicture[]): Promise<unknown> =>
  db.library.bulkPut([...pictures]);
export const patchLibraryPicture = (
  id: string,
  changed: Partial<Pick<LibraryPicture, 'words' | 'credit'>>
): Promise<unknown> => db.library.update(id, changed);

/** Takes a picture out of the library. Its file stays: scenes may show it. */
export const removeLibraryPicture = (id: string): Promise<void> => db.library.delete(id);
