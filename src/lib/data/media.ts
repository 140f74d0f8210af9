import { db } from './db.ts';
import type { Media } from '$lib/core/model/rows.ts';

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

/** Makes room: frames of films that were proposed and that no video shows. */
export async function forgetUnusedFrames(): Promise<void> {
  const frames = new Set(await mediaIdsWith('frame:'));
  // What was thrown away can be had back, with its pictures.
  if (frames.size === 0 || (await db.trash.count()) > 0) return;
  await db.narrations.each(({ scenes }) => {
    for (const { picture, second } of scenes)
      for (const shown of [picture, second]) if (shown) frames.delete(shown.url);
  });
  await removeMedia([...frames]);
}

export const removeMedia = (ids: readonly string[]): Promise<void> => db.media.bulkDelete([...ids]);
