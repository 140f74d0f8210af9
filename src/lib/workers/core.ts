import { wrap, type Remote } from 'comlink';
import type { CoreWorker } from './core.worker.ts';

let remote: Remote<CoreWorker> | null = null;

/** The worker that reads feeds and pairs items; started when first used. */
export function coreWorker(): Remote<CoreWorker> {
  remote ??= wrap<CoreWorker>(
    new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module', name: 'core' })
  );
  return remote;
}
