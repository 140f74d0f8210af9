import { launch } from './launch.ts';
import type { JournalApi } from './journalApi.ts';

/** The worker that filters the journal. */
export const journalWorker = launch<JournalApi>(
  () =>
    new Worker(new URL('./journal.worker.ts', import.meta.url), { type: 'module', name: 'journal' })
);
