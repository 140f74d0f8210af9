import { writeWebVtt, writeWordTimedWebVtt } from '$lib/core/captions/webvtt.ts';
import { chaptersVtt } from '$lib/core/chapters/formats.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Narration } from '$lib/core/narration/narration.ts';
import { readRender } from '$lib/data/narrations.ts';
import { readFile, writeFile } from '$lib/video/files.ts';
import { tracksOf } from '$lib/video/job.ts';
import { videoWorker } from '$lib/workers/video.ts';
import { productionOf, sayScenes } from './narrate.ts';
import { downloadBlob } from './download.ts';
import { attempt, runTask } from './tasks.svelte.ts';

export type ExportKind = 'video' | 'zip' | 'captions' | 'word-captions' | 'script' | 'card' | 'wav';

const fileName = (title: string): string =>
  title
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60) || 'video';

/** What is read out, scene by scene. */
export const scriptText = (narration: Narration): string =>
  narration.scenes
    .map((s) =>
      s.lines
        .filter((l) => l.spoken)
        .map((l) => l.spoken)
        .join('\n')
    )
    .filter(Boolean)
    .join('\n\n') + '\n';

/**
 * Gives the user a file of a narration.
 * @returns a line that says what came of it
 */
export async function exportVideo(
  what: ExportKind,
  narration: Narration,
  post: Item,
  scene: number
): Promise<string> {
  const name = fileName(post.title);
  const { value, problem } = await attempt(() =>
    runTask('Preparing the file', async (signal) => {
      switch (what) {
        case 'script':
          return {
            as: `${name}.txt`,
            blob: new Blob([scriptText(narration)], { type: 'text/plain' })
          };
        case 'captions':
          return { as: `${name}.vtt`, blob: await captionsOf(narration, signal) };
        case 'word-captions':
          return { as: `${name}-words.vtt`, blob: await captionsOf(narration, signal, true) };
        case 'card':
          return {
            as: `${name}.png`,
            blob: await videoWorker().card(productionOf(narration, new Map()), scene)
          };
        case 'wav':
          return { as: `${name}.wav`, blob: await soundOf(narration, post, signal) };
        case 'video':
          return { as: `${name}.${narration.format}`, blob: await videoOf(narration) };
        case 'zip':
          return { as: `${name}.zip`, blob: await allOf(narration, post, name, signal) };
      }
    })
  );
  if (!value?.blob)
    return `The file could not be made. ${problem?.detail ?? 'Render the video first.'}`;
  downloadBlob(value.as, value.blob);
  return `${value.as} is downloading.`;
}

async function videoOf(narration: Narration): Promise<File | null> {
  const render = await readRender(narration.id);
  return render?.state === 'done' ? readFile(render.file) : null;
}

async function planned(narration: Narration, signal: AbortSignal) {
  const said = await sayScenes(narration.scenes, narration.voice, signal);
  const production = productionOf(narration, said.speech);
  return { production, plan: await videoWorker().plan(production) };
}

async function captionsOf(
  narration: Narration,
  signal: AbortSignal,
  withWords = false
): Promise<Blob> {
  const { plan } = await planned(narration, signal);
  const { captions } = tracksOf(plan);
  const written = withWords ? writeWordTimedWebVtt(captions) : writeWebVtt(captions);
  return new Blob([written], { type: 'text/vtt' });
}

async function soundOf(
  narration: Narration,
  post: Item,
  signal: AbortSignal
): Promise<File | null> {
  const { production } = await planned(narration, signal);
  const { id, format, options } = narration;
  const tags = { title: post.title, comment: '', language: options.language };
  return readFile(await videoWorker().wav({ ...production, id, format, tags, file: '', kept: [] }));
}

/** Everything in one file, written as a stream: the video never lies in memory as a whole. */
async function allOf(
  narration: Narration,
  post: Item,
  name: string,
  signal: AbortSignal
): Promise<File | null> {
  const render = await readRender(narration.id);
  const video = await videoOf(narration);
  if (!render || !video) return null;
  const { writeZip } = await import('$lib/core/zip/write.ts');
  const sound = await soundOf(narration, post, signal);
  const title = Math.max(
    0,
    narration.scenes.findIndex((s) => s.kind === 'title')
  );
  const card = await videoWorker().card(productionOf(narration, new Map()), title);
  const chapters = chaptersVtt(render.chapters, render.seconds);
  const files = [
    { name: `${name}.${render.format}`, content: video },
    { name: `${name}.vtt`, content: render.captions },
    ...(render.chapters.length > 0 ? [{ name: `${name}.chapters.vtt`, content: chapters }] : []),
    { name: `${name}.png`, content: card },
    { name: `${name}.txt`, content: scriptText(narration) },
    ...(sound ? [{ name: `${name}.wav`, content: sound }] : [])
  ];
  const file = `${narration.id}-all.zip`;
  await writeZip(await writeFile(file), files, new Date(), signal);
  return readFile(file);
}
