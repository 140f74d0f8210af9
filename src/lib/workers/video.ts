import { wrap, type Remote } from 'comlink';
import type { VideoWorker } from './video.worker.ts';

let remote: Remote<VideoWorker> | null = null;

/** The worker that lays out and renders videos; started when first used. */
export function videoWorker(): Remote<VideoWorker> {
  remote ??= wrap<VideoWorker>(
    new Worker(new URL('./video.worker.ts', import.meta.url), { type: 'module', name: 'video' })
  );
  return remote;
}
