import { launch } from './launch.ts';
import type { PairsApi } from './pairsApi.ts';

/** The worker that finds which videos and posts tell the same thing. */
export const pairsWorker = launch<PairsApi>(
  () => new Worker(new URL('./pairs.worker.ts', import.meta.url), { type: 'module', name: 'pairs' })
);
