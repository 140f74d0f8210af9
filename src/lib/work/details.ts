import type { Cue } from '$lib/core/captions/cue.ts';
import { chaptersInDescription } from '$lib/core/chapters/chapter.ts';
import { canonicalAddress } from '$lib/core/feeds/address.ts';
import { decodeText } from '$lib/core/feeds/decode.ts';
import { htmlText } from '$lib/core/text/html.ts';
import type { Item } from '$lib/core/model/item.ts';
import { getDetails, patchDetails } from '$lib/data/details.ts';
import type { Details } from '$lib/core/model/rows.ts';
import { getBody } from '$lib/data/items.ts';
import { readAddress } from '$lib/places/wire.ts';
import { coreWorker } from '$lib/workers/core.ts';
import { talkWorker } from '$lib/workers/talk.ts';
import { attempt } from './tasks.svelte.ts';

/** What the page of a video tells beyond its feed: captions, chapters, how to link to a second. */
export async function readDetails(video: Item, signal: AbortSignal): Promise<Details> {
  const known = await getDetails(video.id);
  const details = {
    chapters: known?.chapters ?? [],
    seekTo: known?.seekTo ?? '',
    asOf: video.updated ?? '',
    read: new Date().toISOString()
  };
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
  if (known?.isByHand) return patchDetails(video.id, details);
  const cues = await readCues(captions, video.language, signal);
  return patchDetails(video.id, { ...details, cues });
}

/** The captions in the language of the video, else the first there are. */
async function readCues(
  captions: Item['captions'],
  language: string,
  signal: AbortSignal
): Promise<Cue[]> {
  const spoken = language.split('-')[0] ?? '';
  const chosen = captions.find((c) => spoken && c.language.startsWith(spoken)) ?? captions[0];
  if (!chosen) return [];
  const { bytes } = await readAddress(chosen.url, signal);
  // WebVTT is UTF-8 by its definition, whatever the server says.
  const read = await talkWorker().readFile(decodeText(bytes));
  // Captions without words, or of a kind that is not known, are as good as none.
  return 'cues' in read ? read.cues : [];
}

/** Captions imported by hand for a video that has none, or in place of those it has. */
export async function importCaptions(id: string, cues: Cue[]): Promise<Details> {
  return patchDetails(id, { cues, isByHand: true, read: new Date().toISOString() });
}

/** Back to the captions of the channel, which the next reading brings. */
export async function dropCaptions(id: string): Promise<void> {
  await patchDetails(id, { cues: [], isByHand: false });
}
