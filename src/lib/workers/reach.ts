import { launch } from './launch.ts';
import type { ReachApi } from './reachApi.ts';

/** The worker that reads logs and looks through the figures. */
export const reachWorker = launch<ReachApi>(
  () => new Worker(new URL('./reach.worker.ts', import.meta.url), { type: 'module', name: 'reach' })
);
