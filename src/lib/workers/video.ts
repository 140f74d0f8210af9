import { launch, MEDIA_PATIENCE } from './launch.ts';
import type { VideoApi } from './videoApi.ts';

/** The worker that lays videos out and renders them. */
export const videoWorker = launch<VideoApi>(
  () =>
    new Worker(new URL('./video.worker.ts', import.meta.url), { type: 'module', name: 'video' }),
  { patience: MEDIA_PATIENCE }
);
