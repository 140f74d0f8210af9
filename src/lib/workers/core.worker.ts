import { expose } from 'comlink';
import { decodeText } from '$lib/core/feeds/decode.ts';
import { readPage, type PageFacts } from '$lib/core/feeds/page.ts';
import {
  isVideoFeed,
  readFeed,
  toItem,
  type FeedEntry,
  type ReadFeed
} from '$lib/core/feeds/read.ts';
import { placeId as idOfPlace } from '$lib/core/model/ids.ts';
import { PlaceError, type Problem } from '$lib/core/model/place.ts';
import { pairAgain } from '$lib/data/twins.ts';
import { replaceItems } from '$lib/data/items.ts';

/** What was read, as it came over the wire. */
export interface Fetched {
  url: string;
  contentType: string;
  bytes: Uint8Array;
}

export type FeedSummary = Omit<ReadFeed, 'entries'> & {
  isVideo: boolean;
  count: number;
  latest: { title: string; published: string | null }[];
  embedOrigins: string[];
};

export type Examined =
  | { is: 'feed'; feed: FeedSummary }
  | { is: 'page'; page: PageFacts }
  | { is: 'problem'; problem: Problem };

const originsOf = (addresses: string[]): string[] => [
  ...new Set(addresses.flatMap((a) => (URL.canParse(a) ? [new URL(a).origin] : [])))
];

function read(fetched: Fetched): ReadFeed {
  const start = performance.now();
  const text = decodeText(fetched.bytes, fetched.contentType);
  const feed = readFeed(text, fetched.url, new Date().toISOString());
  performance.measure('read feed', { start });
  return feed;
}

/** Entries of feeds whose pages are still being read; by the address of the feed. */
const collected = new Map<string, FeedEntry[]>();

const api = {
  /** Whether a document is a feed, and of what, or a page that may lead to one. */
  examine(fetched: Fetched): Examined {
    try {
      const { entries, ...head } = read(fetched);
      const feed: FeedSummary = {
        ...head,
        isVideo: isVideoFeed({ ...head, entries }),
        count: entries.length,
        latest: entries.slice(0, 3).map(({ title, published }) => ({ title, published })),
        embedOrigins: originsOf(
          entries.flatMap((e) => [e.embedUrl, e.contentUrl, ...e.pictures.map((p) => p.url)])
        )
      };
      return { is: 'feed', feed };
    } catch (error) {
      if (!(error instanceof PlaceError)) throw error;
      if (error.problem.kind === 'broken-feed') return { is: 'problem', problem: error.problem };
      const text = decodeText(fetched.bytes, fetched.contentType);
      return { is: 'page', page: readPage(text, fetched.url) };
    }
  },

  /** Reads one page of a feed and keeps its entries here until they are stored. */
  collect(feedUrl: string, fetched: Fetched): { next: string; problem: Problem | null } {
    try {
      const { entries, next } = read(fetched);
      collected.set(feedUrl, [...(collected.get(feedUrl) ?? []), ...entries]);
      return { next, problem: null };
    } catch (error) {
      collected.delete(feedUrl);
      if (error instanceof PlaceError) return { next: '', problem: error.problem };
      throw error;
    }
  },

  /** What the place itself calls the collected items, which are not stored. */
  takeMembers(feedUrl: string): string[] {
    const entries = collected.get(feedUrl) ?? [];
    collected.delete(feedUrl);
    return entries.map((e) => e.nativeId);
  },

  /** Makes what was collected the items of the place. */
  async storeCollected(feedUrl: string, isWhole: boolean): Promise<number> {
    const entries = collected.get(feedUrl) ?? [];
    collected.delete(feedUrl);
    const id = idOfPlace(feedUrl);
    const items = entries.map((entry) => toItem(entry, id));
    const bodies = entries.map((entry, i) => ({ id: items[i]?.id ?? '', html: entry.html }));
    // A feed without further pages tells its latest entries: what is newer than its oldest and
    // not in it is gone, and of what is older it says nothing. Drafts never stand in a feed.
    const oldest = isWhole ? '' : (entries.map((e) => e.published ?? '').sort()[0] ?? '9999');
    await replaceItems(
      id,
      items,
      bodies,
      (item) =>
        (item.kind === 'video' || item.visibility === 'public') && (item.published ?? '') >= oldest
    );
    return items.length;
  },

  pairAgain
};

export type CoreWorker = typeof api;
expose(api);
