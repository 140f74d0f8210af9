import { addressFromInput } from '$lib/core/feeds/address.ts';
import type { PageFacts } from '$lib/core/feeds/page.ts';
import { placeId } from '$lib/core/model/ids.ts';
import { PlaceError, type Place } from '$lib/core/model/place.ts';
import { note } from '$lib/data/journal.ts';
import {
  addPlace,
  patchPlace,
  removePlace,
  removePlaceKey,
  savePlaceKey
} from '$lib/data/places.ts';
import { readAddress } from '$lib/places/wire.ts';
import { adapterFor } from '$lib/places/adapter.ts';
import { coreWorker } from '$lib/workers/core.ts';
import type { FeedSummary } from '$lib/workers/coreApi.ts';

/** A channel or blog that an address led to, not linked yet. */
export interface Found {
  kind: Place['kind'];
  feedUrl: string;
  home: string;
  title: string;
  author: string;
  latest: FeedSummary['latest'];
  count: number;
  hasMore: boolean;
  /** Entries without id, address or title. */
  passedOver: number;
  micropub: string;
  tokenEndpoint: string;
  origins: string[];
  /** Further feeds that the page names. */
  others: { url: string; title: string }[];
}

/** Finds the feed behind any address of a channel or blog: its page, one item, the feed itself. */
export async function findPlace(input: string, signal: AbortSignal): Promise<Found> {
  const address = addressFromInput(input);
  if (!address) throw new PlaceError({ kind: 'bad-address', url: input });
  const fetched = await readAddress(address, signal);
  const examined = await coreWorker().examine(fetched);
  if (examined.is === 'problem') throw new PlaceError(examined.problem);
  if (examined.is === 'feed') return fromFeed(fetched.url, examined.feed, null, signal);
  const { feeds } = examined.page;
  for (const feed of feeds) {
    const document = await readAddress(feed.url, signal);
    const inner = await coreWorker().examine(document);
    if (inner.is !== 'feed') continue;
    const found = await fromFeed(document.url, inner.feed, examined.page, signal);
    return { ...found, others: feeds.filter((f) => f.url !== feed.url) };
  }
  throw new PlaceError({ kind: 'no-feed-found', url: fetched.url });
}

async function fromFeed(
  feedUrl: string,
  feed: FeedSummary,
  page: PageFacts | null,
  signal: AbortSignal
): Promise<Found> {
  // The head of any page of a blog names its Micropub endpoint; a bare feed does not.
  const facts = page?.micropub ? page : await pageFacts(feed.home, signal);
  return {
    kind: feed.isVideo ? 'channel' : 'blog',
    feedUrl,
    home: feed.home || new URL('/', feedUrl).href,
    title: feed.title || facts?.title || new URL(feedUrl).host,
    author: feed.author,
    latest: feed.latest,
    count: feed.count,
    hasMore: feed.next !== '',
    passedOver: feed.passedOver,
    micropub: facts?.micropub ?? '',
    tokenEndpoint: facts?.tokenEndpoint ?? '',
    origins: [...new Set([new URL(feedUrl).origin, ...(feed.isVideo ? feed.embedOrigins : [])])],
    others: []
  };
}

async function pageFacts(url: string, signal: AbortSignal): Promise<PageFacts | null> {
  if (!url) return null;
  try {
    const examined = await coreWorker().examine(await readAddress(url, signal));
    return examined.is === 'page' ? examined.page : null;
  } catch (error) {
    // Reading works without the page; only publishing needs what it tells.
    if (error instanceof PlaceError && error.problem.kind !== 'stopped') return null;
    throw error;
  }
}

/** Links a place for reading. */
export async function connectPlace(found: Found): Promise<Place> {
  const now = new Date().toISOString();
  const place: Place = {
    id: placeId(found.feedUrl),
    kind: found.kind,
    url: found.home,
    feedUrl: found.feedUrl,
    title: found.title,
    author: found.author,
    micropub: found.micropub,
    tokenEndpoint: found.tokenEndpoint,
    rights: ['read'],
    hasKey: false,
    origins: found.origins,
    linked: now,
    checked: now,
    problem: null
  };
  await addPlace(place);
  // What is kept here from now on should not be thrown away when space runs low.
  void navigator.storage?.persist?.();
  await note({ what: 'connected', placeId: place.id, title: place.title, url: place.url });
  return place;
}

/**
 * Asks a place again whose it is and what we may do there, and writes down what came of it: only
 * that, so that whatever else changed meanwhile stays.
 * @throws PlaceError when it does not answer as it should
 */
export async function checkPlace(place: Place, signal?: AbortSignal): Promise<void> {
  const checked = new Date().toISOString();
  try {
    const capabilities = await (await adapterFor(place)).fetchCapabilities(signal);
    await patchPlace(place.id, { ...capabilities, checked, problem: null });
  } catch (error) {
    if (error instanceof PlaceError)
      await patchPlace(place.id, { checked, problem: error.problem });
    throw error;
  }
}

/**
 * Takes a key for publishing. It is tried before it is stored: a key that the place refuses changes
 * nothing.
 * @throws PlaceError
 */
export async function setKey(place: Place, key: string, signal?: AbortSignal): Promise<void> {
  const { id, title } = place;
  const adapter = await adapterFor(place, key.trim());
  const capabilities = await adapter.fetchCapabilities(signal);
  const checked = new Date().toISOString();
  await savePlaceKey(id, key.trim(), { ...capabilities, checked, problem: null });
  await note({ what: 'key-saved', placeId: id, title });
}

export async function removeKey({ id, title }: Place): Promise<void> {
  await removePlaceKey(id);
  await note({ what: 'key-removed', placeId: id, title });
}

export async function disconnectPlace({ id, title, url }: Place): Promise<void> {
  await removePlace(id);
  await note({ what: 'disconnected', placeId: id, title, url });
}
