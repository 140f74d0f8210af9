import { v4 } from 'uuid';
import type { MediaProblem } from '$lib/core/narration/narration.ts';
import { db } from '$lib/data/db.ts';
import { toBitmap } from '$lib/video/pictures.ts';
import { videoWorker } from '$lib/workers/video.ts';
import { runTask } from './tasks.svelte.ts';

/** A file of the user's own that was taken, or why it was not. */
export type Brought = { id: string; problem: null } | { id: ''; problem: MediaProblem };

const newId = (): string => `own:${v4()}`;

/** Takes a sound: it is decoded once and kept. */
export async function bringSound(file: Blob, name: string): Promise<Brought> {
  const id = newId();
  const { problem } = await runTask(`Reading “${name}”`, () =>
    videoWorker().bringSound(id, name, file)
  );
  return problem ? { id: '', problem } : { id, problem };
}

/** Takes a clip that is to stand before or after videos. */
export async function bringClip(file: File): Promise<Brought> {
  const id = newId();
  const { problem } = await runTask(`Reading “${file.name}”`, () =>
    videoWorker().bringClip(id, file.name, file)
  );
  return problem ? { id: '', problem } : { id, problem };
}

/** Takes a picture, such as a mark. */
export async function bringPicture(file: File): Promise<Brought> {
  const bitmap = await toBitmap(file);
  if (!bitmap) return { id: '', problem: { kind: 'not-media' } };
  bitmap.close();
  const id = newId();
  await db.media.put({ id, name: file.name, blob: file, seconds: null, channels: null });
  return { id, problem: null };
}
