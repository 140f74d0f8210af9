import { writeWebVtt } from '$lib/core/captions/webvtt.ts';
import { decodeText } from '$lib/core/feeds/decode.ts';
import type { Item } from '$lib/core/model/item.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { madeFromFilm, type Film } from '$lib/core/narration/films.ts';
import type { MediaProblem, Render } from '$lib/core/narration/narration.ts';
import { saveRender } from '$lib/data/narrations.ts';
import { readAddress, readPart } from '$lib/places/wire.ts';
import { readFile, removeFiles, writeWhole } from '$lib/video/files.ts';
import { talkWorker } from '$lib/workers/talk.ts';
import { videoWorker } from '$lib/workers/video.ts';
import { attempt, runTask, type Report } from './tasks.svelte.ts';

/** Bytes that are read at a time. */
const PART = 4_000_000;
/** Bytes of the largest file that is taken. */
const MOST = 8e9;

/** A video file of a post that was fetched, or why it cannot be used. */
export type FetchedFilm =
  { render: Render; problem: null } | { render: null; problem: MediaProblem };

/**
 * Takes a video file of a post for the video of that post, as it is: nothing is rendered.
 * @throws PlaceError where it cannot be fetched
 */
export function useFilm(film: Film, post: Item, outer?: AbortSignal): Promise<FetchedFilm> {
  const work = async (signal: AbortSignal, report: Report): Promise<FetchedFilm> => {
    const file = `${post.id}-film-${Date.now()}`;
    await writeWhole(file, async (out) => {
      for (let [at, total] = [0, 0]; at === 0 || at < total;) {
        signal.throwIfAborted();
        const part = await readPart(film.url, at, at + PART - 1, signal);
        total ||= part.total;
        // A site may tell of more than it gives, or of ever more, or begin again from the front.
        const isOdd = part.total !== total || at + part.bytes.length > total;
        if (part.bytes.length === 0 || isOdd)
          throw new PlaceError({ kind: 'no-answer', url: film.url });
        if (total > MOST) throw new PlaceError({ kind: 'too-large', url: film.url });
        await out.write(part.bytes);
        at += part.bytes.length;
        report(`${Math.round(at / 1e6)} of ${Math.round(total / 1e6)} MB`, at / total);
      }
    });
    const blob = await readFile(file);
    const { film: seen, problem } = await videoWorker().examineFilm(blob ?? new Blob());
    if (!blob || !seen) {
      await removeFiles([file]);
      return { render: null, problem: problem ?? { kind: 'not-media' } };
    }
    const render: Render = {
      ...seen,
      id: post.id,
      state: 'done',
      problem: null,
      file,
      bytes: blob.size,
      captions: await captionsOf(film, signal),
      chapters: [],
      madeFrom: madeFromFilm(film.url),
      changed: new Date().toISOString()
    };
    await saveRender(render);
    return { render, problem: null };
  };
  return runTask(`Fetching the video of “${post.title}”`, work, outer);
}

/** The captions of a film as WebVTT; empty where there are none that can be read. */
async function captionsOf({ captions }: Film, signal: AbortSignal): Promise<string> {
  if (!captions) return '';
  const { value } = await attempt(async () => {
    const { bytes } = await readAddress(captions, signal);
    return talkWorker().readFile(decodeText(bytes));
  });
  return value && 'cues' in value ? writeWebVtt(value.cues) : '';
}
