import { wrap, type Remote } from 'comlink';
import type { SoundWorker } from './sound.worker.ts';

let remote: Remote<SoundWorker> | null = null;

/** The worker that mixes sound, so that pictures are encoded meanwhile. Used by the video worker. */
export function soundWorker(): Remote<SoundWorker> {
  remote ??= wrap<SoundWorker>(
    new Worker(new URL('./sound.worker.ts', import.meta.url), { type: 'module', name: 'sound' })
  );
  return remote;
}
