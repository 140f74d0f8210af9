import { Gunzip } from 'fflate';
import { canonicalAddress } from '$lib/core/feeds/address.ts';
import { LogReader } from '$lib/core/reach/log/readLog.ts';
import type { OwnVisits } from '$lib/core/reach/log/ownVisits.ts';
import { overviewOf, type ReachOverview } from '$lib/core/reach/overview.ts';
import { visitsBySource } from '$lib/core/reach/reachRow.ts';
import type { Place } from '$lib/core/model/place.ts';
import { itemsOf } from '$lib/data/items.ts';
import { readSpans } from '$lib/data/logSpans.ts';
import { placesOfKind } from '$lib/data/places.ts';
import { eachPostVisits, type FoundVisits } from '$lib/data/reach.ts';
import { reachSubjects } from '$lib/data/reachSubjects.ts';

/** Bytes of a log that are read at a time. */
const PIECE = 2_000_000;

export const reachApi = {
  /**
   * Reads the access log of a blog, packed or not. Nothing is kept of it yet.
   * @param tags names of link tags in use
   * @param report told how much of the file was read, from 0 to 1
   * @returns null where the file cannot be unpacked
   */
  async readLog(
    blog: Place,
    file: Blob,
    ownVisits: OwnVisits,
    tags: readonly string[],
    zone: string,
    report: (done: number) => void
  ): Promise<FoundVisits | null> {
    const posts = (await itemsOf([blog.id])).filter(({ kind }) => kind === 'post');
    const channels = (await placesOfKind('channel')).map(({ id }) => id);
    const videos = await itemsOf(channels);
    const reader = new LogReader({
      pages: posts.map(({ url }) => url),
      blogUrl: blog.url,
      own: {
        host: new URL(blog.url).host,
        hosts: new Set(
          [blog.url, ...videos.map(({ url }) => url)].flatMap((url) =>
            URL.canParse(url) ? [new URL(url).host] : []
          )
        ),
        videos: new Map(videos.map(({ id, url }) => [canonicalAddress(url), id])),
        tags: new Set(tags)
      },
      ownVisits,
      zone,
      spans: await readSpans(blog.id)
    });
    if (!(await readText(file, (text) => reader.add(text), report))) return null;
    return { placeId: blog.id, posts: posts.map(({ id }) => id), findings: reader.finish() };
  },

  /** What the figures say of the catalogue. */
  async overview(now: number, zone: string): Promise<ReachOverview> {
    return overviewOf(await reachSubjects(), now, zone);
  },

  /** Where visitors of all posts came from since a day, those with most first. */
  async sources(since: number): Promise<{ source: string; count: number }[]> {
    const sums = new Map<string, number>();
    await eachPostVisits((visits) => {
      for (const { source, count } of visitsBySource(visits, since))
        sums.set(source, (sums.get(source) ?? 0) + count);
    });
    return [...sums]
      .map(([source, count]) => ({ source, count }))
      .sort((a, b) => b.count - a.count);
  }
};
export type ReachApi = typeof reachApi;

/**
 * The text of a file as it comes; gzip, also of several parts, is unpacked.
 * @returns whether it could be unpacked to its end
 */
async function readText(
  file: Blob,
  add: (text: string) => void,
  report: (done: number) => void
): Promise<boolean> {
  // Logs are bytes of whatever: each is taken for a letter, so that nothing is lost or slow.
  const decoder = new TextDecoder('latin1');
  const head = new Uint8Array(await file.slice(0, 2).arrayBuffer());
  const isPacked = head[0] === 0x1f && head[1] === 0x8b;
  const gunzip = isPacked ? new Gunzip((bytes) => add(decoder.decode(bytes))) : null;
  // Piece by piece, so that no more than one of them is in memory.
  for (let from = 0; from < file.size; from += PIECE) {
    const piece = new Uint8Array(await file.slice(from, from + PIECE).arrayBuffer());
    const isLast = from + PIECE >= file.size;
    if (!gunzip) add(decoder.decode(piece));
    else if (!unpack(gunzip, piece, isLast)) return false;
    report(Math.min(1, (from + PIECE) / file.size));
  }
  return true;
}

function unpack(gunzip: Gunzip, bytes: Uint8Array, isLast: boolean): boolean {
  try {
    gunzip.push(bytes, isLast);
    return true;
  } catch {
    return false;
  }
}
