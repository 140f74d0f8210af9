import { db } from './db.ts';
import type { Media } from './rows.ts';

export const getMedia = async (id: string): Promise<Media | null> =>
  (await db.media.get(id)) ?? null;
export const getMediaOf = (ids: readonly string[]): Promise<(Media | undefined)[]> =>
  db.media.bulkGet([...ids]);

/** A file kept in this browser, or null. */
export const keptFile = async (id: string): Promise<Blob | null> =>
  (await db.media.get(id))?.blob ?? null;

export const mediaIds = (): Promise<string[]> => db.media.toCollection().primaryKeys();
export const mediaIdsWith = (prefix: string): Promise<string[]> =>
  db.media.where('id').startsWith(prefix).primaryKeys();

/** Keeps a file; a picture has neither seconds nor channels. */
export const saveMedia = ({
  id,
  name,
  blob,
  seconds = null,
  channels = null
}: Pick<Media, 'id' | 'name' | 'blob'> & Partial<Media>): Promise<unknown> =>
  db.media.put({ id, name, blob, seconds, channels });

export const removeMedia = (ids: readonly string[]): Promise<void> => db.media.bulkDelete([...ids]);
