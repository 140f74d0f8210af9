import type { Playlist } from '$lib/core/model/playlist.ts';
import { db } from './db.ts';

export const playlistsOf = (placeIds: readonly string[]): Promise<Playlist[]> =>
  db.playlists.where('placeId').anyOf(placeIds).sortBy('title');

export const getPlaylists = async (urls: readonly string[]): Promise<Playlist[]> =>
  (await db.playlists.bulkGet([...urls])).filter((p) => p !== undefined);

/** Takes a playlist down; what was read of it before stays. */
export function addPlaylist(placeId: string, url: string, title: string): Promise<Playlist> {
  return db.transaction('rw', db.playlists, async () => {
    const known = await db.playlists.get(url);
    const playlist: Playlist = {
      url,
      placeId,
      title: title || known?.title || url,
      members: known?.members ?? [],
      read: known?.read ?? ''
    };
    await db.playlists.put(playlist);
    return playlist;
  });
}

export async function patchPlaylist(url: string, patch: Partial<Playlist>): Promise<void> {
  await db.playlists.update(url, patch);
}
