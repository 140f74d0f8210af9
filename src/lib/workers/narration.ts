import { wrap, type Remote } from 'comlink';
import type { NarrationWorker } from './narration.worker.ts';

let remote: Remote<NarrationWorker> | null = null;

/** The worker that turns posts into scripts; started when first used. */
export function narrationWorker(): Remote<NarrationWorker> {
  remote ??= wrap<NarrationWorker>(
    new Worker(new URL('./narration.worker.ts', import.meta.url), {
      type: 'module',
      name: 'narration'
    })
  );
  return remote;
}
