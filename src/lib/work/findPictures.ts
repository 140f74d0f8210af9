import { largestPicture, type Item } from '$lib/core/model/item.ts';
import type { Place } from '$lib/core/model/place.ts';
import { altOf } from '$lib/core/narration/pictures/library.ts';
import { pictureGaps, restOfGap } from '$lib/core/narration/pictures/gaps.ts';
import { picturesIn, type Scene } from '$lib/core/narration/scenes.ts';
import type { TimeLine } from '$lib/core/narration/timeLine.ts';
import { detailsOf } from '$lib/data/details.ts';
import { allItems } from '$lib/data/items.ts';
import { libraryPictures } from '$lib/data/library.ts';
import { getMedia, saveMedia } from '$lib/data/media.ts';
import { placesOfKind } from '$lib/data/places.ts';
import { frameAt } from '$lib/video/stills.ts';
import { narrationWorker } from '$lib/workers/narration.ts';
import { runTask } from './tasks.svelte.ts';

/** A picture that is proposed for a scene. */
export interface FoundPicture {
  /** Its address, or the name it is kept under. */
  url: string;
  /** All that is known of it in words. */
  words: string;
  from: 'library' | 'thumbnail' | 'frame';
  /** What it shows, as far as it is known. */
  alt: string;
  /** The video it comes from, or the name of its file. */
  source: string;
  /** Who made it, where that has to be said. */
  credit: string;
  /** Of a frame: where its film lies, and the second. */
  film: { url: string; second: number } | null;
}

/** Videos whose captions are searched for a moment. */
const SEARCHED = 12;
/** Pictures that are proposed for a scene. */
const PROPOSED = 3;
/** Characters of a summary that tell what a video is about. */
const TOLD = 300;

/**
 * The pictures of the user's own that fit a scene best: of the library, of the thumbnails of their videos, and
 * frames from the moments in which the same is spoken of.
 * @param used addresses that the video shows already
 */
async function findPictures(
  scene: Scene,
  context: string,
  language: string,
  used: ReadonlySet<string>
): Promise<{ picture: FoundPicture; fit: number; shared: string[] }[]> {
  const text = scene.lines.map((l) => l.text).join(' ');
  if (!text.trim()) return [];
  const [library, channels, items] = await Promise.all([
    libraryPictures(),
    placesOfKind('channel'),
    allItems()
  ]);
  const placeOf = new Map(channels.map((c) => [c.id, c]));
  const videos = items.filter((i) => i.kind === 'video' && placeOf.has(i.placeId));
  const pictures = library.map((p): FoundPicture => ({
    url: p.id,
    words: `${p.words} ${altOf(p)}`,
    from: 'library',
    alt: altOf(p),
    source: p.path,
    credit: p.credit,
    film: null
  }));
  const thumbnails = videos.flatMap((v) => thumbnailOf(v, placeOf.get(v.placeId)!));
  const frames = await framesAbout(text, videos, placeOf, language);
  const candidates = [...pictures, ...thumbnails, ...frames].filter((c) => !used.has(c.url));
  const words = candidates.map((c) => c.words);
  const best = await narrationWorker().proposePictures(text, context, words, language, PROPOSED);
  return best.map(({ index, fit, shared }) => ({ picture: candidates[index]!, fit, shared }));
}

/** A picture with the scene it fits, by number. */
export interface PictureForScene {
  at: number;
  picture: FoundPicture;
  fit: number;
  /** The words that it shares with what is said. */
  shared: string[];
}

/**
 * The pictures that fit any of some scenes, the best first.
 * @param which scenes by number
 * @param title of the post
 */
export async function findForScenes(
  scenes: readonly Scene[],
  which: readonly number[],
  title: string,
  language: string,
  used: ReadonlySet<string> = new Set(picturesIn(scenes))
): Promise<PictureForScene[]> {
  const all: PictureForScene[] = [];
  for (const at of which) {
    const scene = scenes[at];
    if (!scene) continue;
    const around = [scenes[at - 1], scenes[at + 1]];
    const said = around.flatMap((s) => s?.lines.map((l) => l.text) ?? []).join(' ');
    const found = await findPictures(scene, `${title} ${said}`, language, used);
    all.push(...found.map((one) => ({ ...one, at })));
  }
  return all.sort((a, b) => b.fit - a.fit);
}

/** A scene with a picture beside its words. */
export const withPicture = (scene: Scene, { url, alt, credit }: FoundPicture): Scene => ({
  ...scene,
  kind: 'beside',
  picture: { url, alt, shown: 'fitted', credit }
});

/** The best pictures for all gaps of a video, each once, until none is too long or nothing fits any more. */
export function fillGaps(
  scenes: readonly Scene[],
  timeLine: TimeLine,
  title: string,
  language: string
): Promise<PictureForScene[]> {
  return runTask('Looking for pictures', async (signal, report) => {
    const used = new Set(picturesIn(scenes));
    const chosen: PictureForScene[] = [];
    const gaps = pictureGaps(scenes, timeLine);
    for (let gap = gaps.shift(); gap; gap = gaps.shift()) {
      signal.throwIfAborted();
      report(`${chosen.length} found`);
      const found = await findForScenes(scenes, gap.scenes, title, language, used);
      for (const one of found) {
        if (!(await keepFrame(one.picture))) continue;
        chosen.push(one);
        used.add(one.picture.url);
        gaps.push(...restOfGap(gap, one.at, timeLine));
        break;
      }
    }
    return chosen;
  });
}

const wordsOf = (video: Item): string =>
  `${video.title} ${video.tags.join(' ')} ${video.summary.slice(0, TOLD)}`;

/** Somebody else's channel is named beside its pictures. */
const creditOf = (video: Item, channel: Place): string =>
  channel.hasKey ? '' : video.author || channel.title;

function thumbnailOf(video: Item, channel: Place): FoundPicture[] {
  const picture = largestPicture(video.pictures);
  if (!picture) return [];
  return [
    {
      url: picture.url,
      words: wordsOf(video),
      from: 'thumbnail',
      alt: video.title,
      source: video.title,
      credit: creditOf(video, channel),
      film: null
    }
  ];
}

async function framesAbout(
  text: string,
  videos: readonly Item[],
  placeOf: ReadonlyMap<string, Place>,
  language: string
): Promise<FoundPicture[]> {
  const films = videos.filter((v) => v.contentUrl);
  const about = films.map(wordsOf);
  const near = await narrationWorker().proposePictures(text, '', about, language, SEARCHED);
  const talks = await detailsOf(near.map(({ index }) => films[index]!.id));
  const withCues = talks.filter((t) => t.cues.length > 0);
  const moments = await narrationWorker().momentsAbout(
    text,
    withCues.map((t) => t.cues),
    language
  );
  return moments.flatMap((moment, i): FoundPicture[] => {
    const video = films.find((v) => v.id === withCues[i]!.id);
    if (!moment || !video) return [];
    const second = Math.round(moment.at);
    return [
      {
        url: `frame:${video.id}@${second}`,
        words: moment.words,
        from: 'frame',
        alt: video.title,
        source: video.title,
        credit: creditOf(video, placeOf.get(video.placeId)!),
        film: { url: video.contentUrl, second }
      }
    ];
  });
}

/** Fetches a frame of a film and keeps it. @returns false where its site does not allow it */
export async function keepFrame({ url, film, source }: FoundPicture): Promise<boolean> {
  if (!film || (await getMedia(url))) return true;
  const blob = await frameAt(film.url, film.second);
  if (!blob) return false;
  await saveMedia({ id: url, name: source, blob });
  return true;
}
