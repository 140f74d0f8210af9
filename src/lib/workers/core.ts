import { launch } from './launch.ts';
import type { CoreApi } from './coreApi.ts';

/** The worker that reads feeds and pairs items. */
export const coreWorker = launch<CoreApi>(
  () => new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module', name: 'core' })
);
