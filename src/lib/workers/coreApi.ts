import {
  NoCalendarError,
  readBusyTimes,
  type BusyTimes
} from '$lib/core/calendar/readBusyTimes.ts';
import type { Comment } from '$lib/core/comments/comment.ts';
import { toComments } from '$lib/core/comments/readComments.ts';
import { decodeText } from '$lib/core/feeds/decode.ts';
import { readPage, type PageFacts } from '$lib/core/feeds/page.ts';
import {
  isVideoFeed,
  readFeed,
  toItem,
  type FeedEntry,
  type ReadFeed
} from '$lib/core/feeds/read.ts';
import { toProblem } from '$lib/core/delivery/retry.ts';
import type { Item } from '$lib/core/model/item.ts';
import { PlaceError, type Place, type Problem } from '$lib/core/model/place.ts';
import { pairAgain } from './pairAgain.ts';
import { figuresOfItem } from '$lib/core/reach/figures.ts';
import { applyReading, idsOf } from '$lib/data/items.ts';
import { recordFigures, type ToldFigures } from '$lib/data/reach.ts';
import type { OwnItem } from '$lib/places/place.ts';

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

export type FetchPage = (
  url: string
) => Promise<{ page: Fetched; problem: null } | { page: null; problem: Problem }>;

/** Pages of a paged feed (RFC 5005) that are followed at most. */
const MAX_PAGES = 200;

/**
 * All entries of a feed, page by page.
 * @returns whether nothing was left out: a feed without further pages shows its latest entries only
 */
async function readPages(
  feedUrl: string,
  fetchPage: FetchPage
): Promise<{ entries: FeedEntry[]; isWhole: boolean }> {
  const seen = new Set<string>();
  const entries: FeedEntry[] = [];
  let next = feedUrl;
  while (next && !seen.has(next) && seen.size < MAX_PAGES) {
    seen.add(next);
    const { page, problem } = await fetchPage(next);
    if (problem) throw new PlaceError(problem);
    const feed = read(page);
    for (const entry of feed.entries) entries.push(entry);
    next = feed.next;
  }
  return { entries, isWhole: seen.size > 1 && next === '' };
}

const toldFigures = (item: Item): ToldFigures => ({
  id: item.id,
  placeId: item.placeId,
  kind: item.kind,
  published: item.published,
  figures: figuresOfItem(item),
  ...(item.rating && { stars: item.rating.average })
});

export const coreApi = {
  /** Busy times of a calendar file; null where it is none. */
  busyTimes(file: string, zone: string, now: number): BusyTimes | null {
    try {
      return readBusyTimes(file, zone, now);
    } catch (error) {
      if (error instanceof NoCalendarError) return null;
      throw error;
    }
  },
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

  /**
   * Reads a feed page by page and makes what it has the items of its place, together with what
   * only its owner sees, all at once.
   * @param own what only the owner sees, or null where that is not known
   * @param zone IANA name of the time zone that days are of
   */
  async readFeed(
    place: Place,
    own: OwnItem[] | null,
    zone: string,
    fetchPage: FetchPage
  ): Promise<{ count: number; problem: Problem | null }> {
    try {
      const began = await idsOf(place.id);
      const { entries, isWhole } = await readPages(place.feedUrl, fetchPage);
      const items = entries.map((entry) => toItem(entry, place.id));
      const bodies = entries.map((entry, i) => ({ id: items[i]?.id ?? '', html: entry.html }));
      // What is newer than the oldest entry of a feed and not in it is gone; of what is older a feed
      // without further pages says nothing.
      const oldest = isWhole ? '' : (entries.map((e) => e.published ?? '').sort()[0] ?? '9999');
      const isInFeeds = ({ kind, visibility }: Item) =>
        visibility === 'public' || (kind === 'video' && visibility === 'scheduled');
      const reading = {
        items: [...items, ...(own ?? []).map((o) => o.item)],
        bodies: [...bodies, ...(own ?? []).map(({ item, html }) => ({ id: item.id, html }))],
        isListed: (item: Item) =>
          isInFeeds(item) && !(item.visibility === 'scheduled' && item.origin)
            ? (item.published ?? '') >= oldest
            : own !== null
      };
      await applyReading(place.id, reading, began);
      await recordFigures(reading.items.map(toldFigures), Date.now(), zone);
      return { count: reading.items.length, problem: null };
    } catch (error) {
      return { count: 0, problem: toProblem(error) };
    }
  },

  /** What a place itself calls the items of a feed, which are not stored. */
  async readMembers(
    feedUrl: string,
    fetchPage: FetchPage
  ): Promise<{ members: string[]; problem: Problem | null }> {
    try {
      const { entries } = await readPages(feedUrl, fetchPage);
      return { members: entries.map((e) => e.nativeId), problem: null };
    } catch (error) {
      return { members: [], problem: toProblem(error) };
    }
  },

  /** What was written under a video, as the feed of its comments has it; nothing is stored. */
  async readComments(
    feedUrl: string,
    videoId: string,
    fetchPage: FetchPage
  ): Promise<{ comments: Comment[]; isWhole: boolean; problem: Problem | null }> {
    try {
      const { entries, isWhole } = await readPages(feedUrl, fetchPage);
      const comments = toComments(entries, videoId, new Date().toISOString());
      return { comments, isWhole, problem: null };
    } catch (error) {
      return { comments: [], isWhole: false, problem: toProblem(error) };
    }
  },

  pairAgain
};

export type CoreApi = typeof coreApi;
