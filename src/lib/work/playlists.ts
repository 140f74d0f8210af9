import { proxy } from 'comlink';
import { addressFromInput } from '$lib/core/feeds/address.ts';
import type { FeedLink } from '$lib/core/feeds/page.ts';
import { PlaceError, type Place } from '$lib/core/model/place.ts';
import type { Playlist } from '$lib/core/model/playlist.ts';
import { addPlaylist, patchPlaylist, playlistsOf } from '$lib/data/playlists.ts';
import { readAddress } from '$lib/places/wire.ts';
import { coreWorker } from '$lib/workers/core.ts';
import type { Fetched } from '$lib/workers/coreApi.ts';
import { pageFetcher } from './pageFetcher.ts';
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
    for (const feed of feeds)
      if (feed.url !== place.feedUrl) await addPlaylist(place.id, feed.url, feed.title);
    return playlistsOf([place.id]);
  });
}

/**
 * Takes a playlist in by any address of it: its page or its feed.
 * @throws PlaceError
 */
export async function connectPlaylist(place: Place, input: string): Promise<Playlist> {
  const address = addressFromInput(input);
  if (!address) throw new PlaceError({ kind: 'bad-address', url: input });
  return runTask('Looking for the playlist', async (signal) => {
    const feed = await feedBehind(await readAddress(address, signal), signal);
    const isOfChannel = feed?.isVideo && new URL(feed.url).origin === new URL(place.feedUrl).origin;
    if (!feed || !isOfChannel || feed.url === place.feedUrl)
      throw new PlaceError({
        kind: 'no-feed-found',
        url: address,
        detail: `It is no playlist of ${place.title}.`
      });
    return readPlaylist(await addPlaylist(place.id, feed.url, feed.title), signal);
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
  const { members, problem } = await coreWorker().readMembers(url, proxy(pageFetcher(signal)));
  if (problem) throw new PlaceError(problem);
  const read = new Date().toISOString();
  await patchPlaylist(url, { members, read });
  return { ...playlist, members, read };
}
