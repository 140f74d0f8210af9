import { launch } from './launch.ts';
import type { NarrationApi } from './narrationApi.ts';

/** The worker that turns posts into scripts. */
export const narrationWorker = launch<NarrationApi>(
  () =>
    new Worker(new URL('./narration.worker.ts', import.meta.url), {
      type: 'module',
      name: 'narration'
    })
);
