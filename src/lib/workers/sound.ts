import { launch, MEDIA_PATIENCE } from './launch.ts';
import type { SoundApi } from './soundApi.ts';

/** The worker that mixes and encodes sound. */
export const soundWorker = launch<SoundApi>(
  () =>
    new Worker(new URL('./sound.worker.ts', import.meta.url), { type: 'module', name: 'sound' }),
  { patience: MEDIA_PATIENCE }
);
