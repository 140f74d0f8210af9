import { v4 } from 'uuid';
import type { BedName } from '$lib/core/audio/synth/beds.ts';
import type { MediaProblem } from '$lib/core/narration/narration.ts';
import { saveMedia } from '$lib/data/media.ts';
import { toBitmap } from '$lib/video/pictures.ts';
import { videoWorker } from '$lib/workers/video.ts';
import { soundWorker } from '$lib/workers/sound.ts';
import { runTask } from './tasks.svelte.ts';

/** A file of the user's own that was taken, or why it was not. */
export type Imported = { id: string; problem: null } | { id: ''; problem: MediaProblem };

const newId = (): string => `own:${v4()}`;

/** Takes a sound: it is decoded once and kept. */
export async function importSound(file: Blob, name: string): Promise<Imported> {
  const id = newId();
  const { problem } = await runTask(`Reading “${name}”`, () =>
    videoWorker().importSound(id, name, file)
  );
  return problem ? { id: '', problem } : { id, problem };
}

/** Takes a clip that is to stand before or after videos. */
export async function importClip(file: File): Promise<Imported> {
  const id = newId();
  const { problem } = await runTask(`Reading “${file.name}”`, () =>
    videoWorker().importClip(id, file.name, file)
  );
  return problem ? { id: '', problem } : { id, problem };
}

/** Takes a picture, such as a mark. */
export async function importPicture(file: File): Promise<Imported> {
  const bitmap = await toBitmap(file);
  if (!bitmap) return { id: '', problem: { kind: 'not-media' } };
  bitmap.close();
  const id = newId();
  await saveMedia({ id, name: file.name, blob: file });
  return { id, problem: null };
}

/** Takes a font file, for the words of videos. */
export async function importFont(file: File): Promise<Imported> {
  const id = newId();
  try {
    await new FontFace(id, await file.arrayBuffer()).load();
  } catch {
    return { id: '', problem: { kind: 'not-media' } };
  }
  await saveMedia({ id, name: file.name, blob: file });
  return { id, problem: null };
}

/** Makes a bed of music, once. @returns the name under which it is kept */
export const useBed = (bed: BedName, title: string): Promise<string> =>
  runTask(`Making the music “${title}”`, () => soundWorker().makeBed(bed, title));
