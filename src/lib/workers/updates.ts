import { wrap, type Remote } from 'comlink';
import type { UpdatesWorker } from './updates.worker.ts';

let remote: Remote<UpdatesWorker> | null = null;

/** The worker that makes updates from items; started when first used. */
export function updatesWorker(): Remote<UpdatesWorker> {
  remote ??= wrap<UpdatesWorker>(
    new Worker(new URL('./updates.worker.ts', import.meta.url), { type: 'module', name: 'updates' })
  );
  return remote;
}
