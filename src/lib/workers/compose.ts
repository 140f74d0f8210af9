import { launch } from './launch.ts';
import type { ComposeApi } from './composeApi.ts';

/** The worker that lays out posts. A layout that fills it for a quarter of a minute is given up. */
export const composeWorker = launch<ComposeApi>(
  () =>
    new Worker(new URL('./compose.worker.ts', import.meta.url), {
      type: 'module',
      name: 'compose'
    }),
  { lookEvery: 1_000, patience: 15_000 }
);
