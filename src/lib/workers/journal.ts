import { wrap, type Remote } from 'comlink';
import type { JournalWorker } from './journal.worker.ts';

let remote: Remote<JournalWorker> | null = null;

/** The worker that searches the journal; started when first used. */
export function journalWorker(): Remote<JournalWorker> {
  remote ??= wrap<JournalWorker>(
    new Worker(new URL('./journal.worker.ts', import.meta.url), { type: 'module', name: 'journal' })
  );
  return remote;
}
