import { PlaceError, type Place } from '$lib/core/model/place.ts';
import { coreWorker } from '$lib/workers/core.ts';
import type { Capabilities, PlaceAdapter } from './place.ts';
import { readAddress } from './wire.ts';

/** A channel or blog that is read by its feed. It needs no account and changes nothing. */
export class FeedPlace implements PlaceAdapter {
  constructor(protected readonly linked: Place) {}

  async fetchCapabilities(signal?: AbortSignal): Promise<Capabilities> {
    const examined = await coreWorker().examine(await readAddress(this.linked.feedUrl, signal));
    if (examined.is === 'problem') throw new PlaceError(examined.problem);
    if (examined.is === 'page')
      throw new PlaceError({ kind: 'not-a-feed', url: this.linked.feedUrl });
    return {
      title: examined.feed.title,
      author: examined.feed.author,
      rights: ['read'],
      categories: [],
      keyEnds: null,
      allowance: null
    };
  }
}
