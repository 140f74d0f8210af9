import { tellsOfNoRoom } from '$lib/core/model/room.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Narration, Render, RenderProblem } from '$lib/core/narration/narration.ts';
import { picturesIn, type Scene } from '$lib/core/narration/scenes.ts';
import type { VoiceChoice } from '$lib/core/narration/voices.ts';
import { getItem } from '$lib/data/items.ts';
import { getMedia, saveMedia } from '$lib/data/media.ts';
import { findAllSpeech } from '$lib/data/speech.ts';
import { readNarration, readRender, removeRender, saveRender } from '$lib/data/narrations.ts';
import { runningRenders } from '$lib/data/runningRenders.ts';
import { pendingTransfers } from '$lib/data/transfers.ts';
import { readAddress } from '$lib/places/wire.ts';
import type { Production } from '$lib/video/job.ts';
import { videoWorker } from '$lib/workers/video.ts';
import type { Said } from '$lib/workers/voiceApi.ts';
import { restVoices, sayAll } from '$lib/workers/voice.ts';
import { proxy } from 'comlink';
import { attempt, runTask, type Report } from './tasks.svelte.ts';

/** What became of saying the lines of a storyboard. */
export interface SaidLines {
  /** Name of the kept speech, by line id. */
  speech: Map<string, string>;
  /** Lines that could not be said, by line id. */
  silent: Map<string, NonNullable<Said['problem']>>;
}

/** Says what is to be said and not kept yet; what the user read is kept already. */
export async function sayScenes(
  scenes: readonly Scene[],
  voice: VoiceChoice | null,
  signal: AbortSignal,
  told: (done: number, all: number) => void = () => {}
): Promise<SaidLines> {
  const all = scenes.flatMap((s) => (s.recording ? [] : s.lines.filter((l) => l.spoken)));
  const result: SaidLines = { speech: new Map(), silent: new Map() };
  const today = new Date().toISOString().slice(0, 10);
  const takes = await findAllSpeech(
    all.flatMap((l) => l.take?.key ?? []),
    today
  );
  for (const { id, take } of all) if (take && takes.has(take.key)) result.speech.set(id, take.key);
  const lines = voice ? all.filter((l) => !result.speech.has(l.id)) : [];
  if (!voice) return result;
  const said = await sayAll(
    lines.map((l) => l.spoken),
    voice,
    signal,
    (done) => told(done, lines.length)
  );
  for (const [i, line] of lines.entries()) {
    const one = said[i];
    if (one?.problem === null) result.speech.set(line.id, one.key);
    else if (one) result.silent.set(line.id, one.problem);
  }
  return result;
}

/**
 * Fetches the pictures of a storyboard that are not kept yet.
 * @returns addresses that lead to no picture
 */
export async function fetchPictures(
  scenes: readonly Scene[],
  signal?: AbortSignal
): Promise<string[]> {
  const { toBitmap } = await import('$lib/video/pictures.ts');
  const urls = picturesIn(scenes);
  const missing: string[] = [];
  for (const url of urls) {
    if (await getMedia(url)) continue;
    const { value } = await attempt(() => readAddress(url, signal));
    const blob =
      value && new Blob([value.bytes as Uint8Array<ArrayBuffer>], { type: value.contentType });
    const bitmap = blob && (await toBitmap(blob));
    if (!blob || !bitmap) {
      missing.push(url);
      continue;
    }
    bitmap.close();
    await saveMedia({ id: url, name: url.split('/').at(-1) ?? '', blob });
  }
  return missing;
}

export function productionOf(narration: Narration, speech: Map<string, string>): Production {
  const {
    scenes,
    frame,
    resolution,
    style,
    voice,
    before,
    after,
    music,
    musicLevel,
    sounds,
    options
  } = narration;
  return {
    scenes,
    frame,
    resolution,
    style,
    speech,
    before,
    after,
    music,
    musicLevel,
    sounds,
    target: options.target,
    language: options.language,
    speed: voice?.speed ?? 1,
    pauses: { sentence: voice?.sentencePause ?? 0.35, part: voice?.partPause ?? 0.7 }
  };
}

const STEPS = { sound: 'sound', frames: 'pictures', file: 'file' };

/**
 * Makes the video of a post: says what is not said yet, then renders it into a file of the
 * browser. Parts that are finished are kept, also when it is stopped or the page is closed.
 * @param outer stops it, as the user may
 */
export async function renderVideo(
  narration: Narration,
  post: Item,
  outer?: AbortSignal
): Promise<Render | null> {
  const work = (signal: AbortSignal, report: Report) =>
    navigator.locks.request(lockOf(narration.id), { ifAvailable: true }, async (lock) => {
      if (!lock) return null;
      const begun = await beginRender(narration);
      const { value, problem } = await attempt(() =>
        render(narration, post, begun, signal, report)
      );
      if (value) return value;
      const ended: Render = {
        ...begun,
        state: signal.aborted ? 'stopped' : 'failed',
        problem: signal.aborted ? null : renderProblemOf(problem.detail ?? '')
      };
      await saveRender(ended);
      return ended;
    });
  // The task lasts until the lock is free: who sees it gone can begin anew.
  return runTask(`Rendering “${post.title}”`, work, outer);
}

/** Of what failed before anything was rendered, as where sentences find no room. */
const renderProblemOf = (detail: string): RenderProblem =>
  tellsOfNoRoom(detail) ? { kind: 'disk-full' } : { kind: 'broken', detail };

const lockOf = (id: string): string => `render/${id}`;

async function beginRender(narration: Narration): Promise<Render> {
  const before = await readRender(narration.id);
  const begun: Render = {
    id: narration.id,
    state: 'running',
    problem: null,
    format: narration.format,
    file: before?.file ?? '',
    bytes: 0,
    seconds: 0,
    width: 0,
    height: 0,
    audio: 'opus',
    captions: '',
    chapters: [],
    changed: new Date().toISOString(),
    madeFrom: contentOf(narration)
  };
  await saveRender(begun);
  return begun;
}

/** What of a narration is seen and spoken in its video. */
export const contentOf = ({
  scenes,
  voice,
  frame,
  resolution,
  style,
  music,
  musicLevel,
  before,
  after,
  format
}: Narration): string =>
  JSON.stringify([
    scenes,
    voice,
    frame,
    resolution,
    style,
    music,
    musicLevel,
    before,
    after,
    format
  ]);

/** Files that are on their way to a channel and must not go. */
const filesUnderWay = async (): Promise<string[]> => (await pendingTransfers()).map((t) => t.file);

class RenderStopped extends Error {}

async function render(
  narration: Narration,
  post: Item,
  begun: Render,
  signal: AbortSignal,
  report: Report
): Promise<Render> {
  report('sentences', 0);
  // Pictures come over the network while the voices are at work.
  const [said] = await Promise.all([
    sayScenes(narration.scenes, narration.voice, signal, (done, all) =>
      report(`sentence ${done} of ${all}`, (0.4 * done) / all)
    ),
    fetchPictures(narration.scenes, signal)
  ]);
  signal.throwIfAborted();
  // Rendering needs memory of its own.
  restVoices();
  const worker = videoWorker();
  const stop = () => void worker.stop();
  signal.addEventListener('abort', stop);
  const started = performance.now();
  try {
    const { rendered, problem } = await worker.render(
      {
        ...productionOf(narration, said.speech),
        id: narration.id,
        format: narration.format,
        file: `${narration.id}-video-${Date.now()}.${narration.format}`,
        kept: await filesUnderWay(),
        tags: {
          title: post.title,
          comment: `Made from ${post.url}`,
          language: narration.options.language
        }
      },
      proxy((share, step) => {
        const elapsed = (performance.now() - started) / 1000;
        const left = share > 0.05 ? ((1 - share) / share) * elapsed : null;
        const time = left === null ? '' : `, ${timeLeft(left)}`;
        report(`${STEPS[step]}${time}`, 0.4 + 0.6 * share);
      })
    );
    signal.throwIfAborted();
    if (problem) return await endFailed(begun, problem);
    const done: Render = {
      ...begun,
      ...rendered,
      state: 'done',
      changed: new Date().toISOString()
    };
    await saveRender(done);
    return done;
  } finally {
    signal.removeEventListener('abort', stop);
  }
}

async function endFailed(begun: Render, problem: RenderProblem): Promise<Render> {
  if (problem.kind === 'stopped') throw new RenderStopped();
  const failed: Render = { ...begun, state: 'failed', problem };
  await saveRender(failed);
  return failed;
}

const timeLeft = (seconds: number): string =>
  seconds < 90
    ? `about ${Math.max(1, Math.round(seconds))} s left`
    : `about ${Math.round(seconds / 60)} min left`;

/** Renders that were running when their page was closed: restored from their finished parts. */
export async function resumeRenders(): Promise<void> {
  for (const id of await runningRenders()) {
    // What this tab or another is making needs no second task beside its own.
    const isLeft = await navigator.locks.request(lockOf(id), { ifAvailable: true }, Boolean);
    if (!isLeft) continue;
    const [narration, post] = [await readNarration(id), await getItem(id)];
    if (narration && post) await renderVideo(narration, post);
    else await removeRender(id);
  }
}
