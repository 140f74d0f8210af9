import { launch, MEDIA_PATIENCE } from './launch.ts';
import type { TakesApi } from './takesApi.ts';

/** The worker that listens to what the user read: what it needs for that is several times as large as a voice. */
export const takesWorker = launch<TakesApi>(
  () =>
    new Worker(new URL('./takes.worker.ts', import.meta.url), { type: 'module', name: 'takes' }),
  // A long recording is laid along its script in one go.
  { patience: MEDIA_PATIENCE }
);
