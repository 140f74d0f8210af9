import { wrap, type Remote } from 'comlink';
import type { LanesWorker } from './lanes.worker.ts';

let remote: Remote<LanesWorker> | null = null;

/** The worker that sifts the catalogue for lanes; started when first used. */
export function lanesWorker(): Remote<LanesWorker> {
  remote ??= wrap<LanesWorker>(
    new Worker(new URL('./lanes.worker.ts', import.meta.url), { type: 'module', name: 'lanes' })
  );
  return remote;
}
