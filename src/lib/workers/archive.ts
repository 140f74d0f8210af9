import { launch, MEDIA_PATIENCE } from './launch.ts';
import type { ArchiveApi } from './archiveApi.ts';

/** The worker that writes and reads archives. */
export const archiveWorker = launch<ArchiveApi>(
  () =>
    new Worker(new URL('./archive.worker.ts', import.meta.url), {
      type: 'module',
      name: 'archive'
    }),
  { patience: MEDIA_PATIENCE }
);
