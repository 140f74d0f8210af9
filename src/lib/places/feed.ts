import { PlaceError, type Place } from '$lib/core/model/place.ts';
import type { Fetched } from '$lib/workers/core.worker.ts';
import { coreWorker } from '$lib/workers/core.ts';
import type { Look, PlaceAdapter } from './place.ts';
import { readAddress } from './wire.ts';

/** Pages of a paged feed (RFC 5005) that are followed at most. */
const MOST_PAGES = 200;

/** A channel or blog that is read by its feed. It needs no account and changes nothing. */
export class FeedPlace implements PlaceAdapter {
  constructor(protected readonly linked: Place) {}

  async look(signal?: AbortSignal): Promise<Look> {
    const examined = await coreWorker().examine(await readAddress(this.linked.feedUrl, signal));
    if (examined.is === 'problem') throw new PlaceError(examined.problem);
    if (examined.is === 'page')
      throw new PlaceError({ kind: 'not-a-feed', url: this.linked.feedUrl });
    return {
      title: examined.feed.title,
      author: examined.feed.author,
      rights: ['read'],
      ...{ categories: [], keyEnds: null, allowance: null }
    };
  }

  list(take: (document: Fetched) => Promise<string>, signal: AbortSignal): Promise<boolean> {
    return eachPage(this.linked.feedUrl, take, signal);
  }
}

/**
 * The pages of a feed (RFC 5005), one after the other.
 * @param take reads one and tells where the next one is, or nothing
 * @returns whether nothing was left out
 * @throws PlaceError
 */
export async function eachPage(
  feedUrl: string,
  take: (document: Fetched) => Promise<string>,
  signal: AbortSignal
): Promise<boolean> {
  const seen = new Set<string>();
  let next = feedUrl;
  while (next && !seen.has(next) && seen.size < MOST_PAGES) {
    seen.add(next);
    next = await take(await readAddress(next, signal));
  }
  // A feed without pages shows its latest entries only: what it leaves out may still stand there.
  return seen.size > 1 && next === '';
}
