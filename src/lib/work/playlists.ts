import { addressFromInput } from '$lib/core/feeds/address.ts';
import type { FeedLink } from '$lib/core/feeds/page.ts';
import { PlaceError, type Place } from '$lib/core/model/place.ts';
import type { Playlist } from '$lib/core/model/playlist.ts';
import { db } from '$lib/data/db.ts';
import { eachPage } from '$lib/places/feed.ts';
import { readAddress } from '$lib/places/wire.ts';
import { coreWorker } from '$lib/workers/core.ts';
import type { Fetched } from '$lib/workers/core.worker.ts';
import { runTask } from './tasks.svelte.ts';

/**
 * The playlists that the page of a channel names, beside its uploads. Those that are known already
 * keep what was read of them.
 * @throws PlaceError
 */
export async function findPlaylists(place: Place): Promise<Playlist[]> {
  return runTask(`Looking for playlists of ${place.title}`, async (signal) => {
    const examined = await coreWorker().examine(await readAddress(place.url, signal));
    const feeds = examined.is === 'page' ? examined.page.feeds : [];
    for (const feed of feeds) if (feed.url !== place.feedUrl) await know(place, feed);
    return db.playlists.where({ placeId: place.id }).toArray();
  });
}

/**
 * Takes a playlist in by any address of it: its page or its feed.
 * @throws PlaceError
 */
export async function addPlaylist(place: Place, input: string): Promise<Playlist> {
  const address = addressFromInput(input);
  if (!address) throw new PlaceError({ kind: 'bad-address', url: input });
  return runTask('Looking for the playlist', async (signal) => {
    const feed = await feedBehind(await readAddress(address, signal), signal);
    const isOfChannel = feed?.isVideo && new URL(feed.url).origin === new URL(place.feedUrl).origin;
    if (!feed || !isOfChannel || feed.url === place.feedUrl)
      throw new PlaceError({
        ...{ kind: 'no-feed-found', url: address },
        detail: `It is no playlist of ${place.title}.`
      });
    return readPlaylist(await know(place, feed), signal);
  });
}

/** The feed that a document is, or the first that its page names. */
async function feedBehind(
  document: Fetched,
  signal: AbortSignal
): Promise<(FeedLink & { isVideo: boolean }) | null> {
  let [at, examined] = [document.url, await coreWorker().examine(document)];
  const named = examined.is === 'page' ? examined.page.feeds[0] : undefined;
  if (named) {
    const feed = await readAddress(named.url, signal);
    [at, examined] = [feed.url, await coreWorker().examine(feed)];
  }
  if (examined.is === 'problem') throw new PlaceError(examined.problem);
  if (examined.is === 'page') return null;
  return { url: at, title: examined.feed.title, isVideo: examined.feed.isVideo };
}

/** Reads which items a playlist has. @throws PlaceError */
export async function readPlaylist(playlist: Playlist, signal: AbortSignal): Promise<Playlist> {
  const { url } = playlist;
  await eachPage(
    url,
    async (document) => {
      const { next, problem } = await coreWorker().collect(url, document);
      if (problem) throw new PlaceError(problem);
      return next;
    },
    signal
  );
  const members = await coreWorker().takeMembers(url);
  const read = { ...playlist, members, read: new Date().toISOString() };
  await db.playlists.put(read);
  return read;
}

async function know(place: Place, { url, title }: FeedLink): Promise<Playlist> {
  const known = await db.playlists.get(url);
  const playlist = {
    ...{ url, placeId: place.id, title: title || known?.title || url },
    ...{ members: known?.members ?? [], read: known?.read ?? '' }
  };
  await db.playlists.put(playlist);
  return playlist;
}
