import { parseWebVtt } from '$lib/core/captions/webvtt.ts';
import type { Cue } from '$lib/core/captions/cue.ts';
import { chaptersInDescription } from '$lib/core/chapters/chapter.ts';
import { decodeText } from '$lib/core/feeds/decode.ts';
import { canonicalAddress } from '$lib/core/feeds/address.ts';
import { htmlText } from '$lib/core/feeds/html.ts';
import type { Item } from '$lib/core/model/item.ts';
import { PlaceError, type Place } from '$lib/core/model/place.ts';
import { db, type Details } from '$lib/data/db.ts';
import { getBody, replaceItems } from '$lib/data/items.ts';
import { note } from '$lib/data/journal.ts';
import { allPlaces, savePlace } from '$lib/data/places.ts';
import { adapterFor } from '$lib/places/adapter.ts';
import { MicropubBlog } from '$lib/places/micropub.ts';
import { readAddress } from '$lib/places/wire.ts';
import { coreWorker } from '$lib/workers/core.ts';
import { attempt, runTask, type Report } from './tasks.svelte.ts';

/** Reads one place, or all of them, and pairs anew. Problems are kept with the place. */
export function readPlaces(which?: Place): Promise<void> {
  return runTask(
    which ? `Reading ${which.title}` : 'Reading all places',
    async (signal, report) => {
      for (const place of which ? [which] : await allPlaces()) {
        const { value, problem } = await attempt(() => readPlace(place, signal, report));
        signal.throwIfAborted();
        const checked = new Date().toISOString();
        await savePlace({ ...place, problem, checked });
        await note({
          what: problem ? 'read-failed' : 'read',
          placeId: place.id,
          title: place.title,
          count: value,
          problem
        });
      }
      report('Pairing');
      await coreWorker().pairAgain();
    }
  );
}

async function readPlace(place: Place, signal: AbortSignal, report: Report): Promise<number> {
  const adapter = await adapterFor(place);
  const { pages, isWhole } = await adapter.list(signal, (n) =>
    report(n === 1 ? `${place.title}: 1 page` : `${place.title}: ${n} pages`)
  );
  const { count, problem } = await coreWorker().storeFeed(place.feedUrl, pages, isWhole);
  if (problem) throw new PlaceError(problem);
  if (!(adapter instanceof MicropubBlog) || !place.hasKey) return count;
  const own = await adapter.listOwn();
  await replaceItems(
    place.id,
    own.map((o) => o.item),
    own.map(({ item, html }) => ({ id: item.id, html })),
    (item) => item.visibility !== 'public'
  );
  return count + own.length;
}

/** What the page of a video tells beyond its feed: captions, chapters, how to link to a second. */
export async function readDetails(video: Item, signal: AbortSignal): Promise<Details> {
  const known = await db.details.get(video.id);
  const details: Details = { ...(known ?? empty(video.id)), read: new Date().toISOString() };
  let captions = video.captions;
  if (video.url) {
    const page = await attempt(async () =>
      coreWorker().examine(await readAddress(video.url, signal))
    );
    signal.throwIfAborted();
    if (page.value?.is === 'page') {
      const facts =
        page.value.page.videos.find(
          (v) => canonicalAddress(v.url) === canonicalAddress(video.url)
        ) ?? page.value.page.videos[0];
      if (facts) {
        details.chapters = facts.chapters.map(({ start, title }) => ({ start, title }));
        details.seekTo = facts.seekTo;
        if (captions.length === 0) captions = facts.captions;
      }
    }
  }
  if (details.chapters.length === 0) {
    details.chapters = chaptersInDescription(htmlText(await getBody(video.id)) || video.summary);
  }
  details.cues = await readCaptions(captions, video.language, signal);
  await db.details.put(details);
  return details;
}

const empty = (id: string): Details => ({ id, cues: [], chapters: [], seekTo: '', read: '' });

/** The captions in the language of the video, else the first there are. */
async function readCaptions(
  captions: Item['captions'],
  language: string,
  signal: AbortSignal
): Promise<Cue[]> {
  const spoken = language.split('-')[0] ?? '';
  const chosen = captions.find((c) => spoken && c.language.startsWith(spoken)) ?? captions[0];
  if (!chosen) return [];
  const { bytes } = await readAddress(chosen.url, signal);
  // WebVTT is UTF-8 by its definition, whatever the server says.
  return parseWebVtt(decodeText(bytes));
}
