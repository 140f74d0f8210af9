import { launch } from './launch.ts';
import type { UpdatesApi } from './updatesApi.ts';

/** The worker that makes updates from items. */
export const updatesWorker = launch<UpdatesApi>(
  () =>
    new Worker(new URL('./updates.worker.ts', import.meta.url), { type: 'module', name: 'updates' })
);
