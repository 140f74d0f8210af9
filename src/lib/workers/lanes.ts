import { launch } from './launch.ts';
import type { LanesApi } from './lanesApi.ts';

/** The worker that looks at what the sources of lanes have. */
export const lanesWorker = launch<LanesApi>(
  () => new Worker(new URL('./lanes.worker.ts', import.meta.url), { type: 'module', name: 'lanes' })
);
