import { expose } from 'comlink';
import type { JournalLine } from '$lib/core/model/journal.ts';
import { isAskedFor, type JournalFilter } from '$lib/core/model/journalFilter.ts';
import { db } from '$lib/data/db.ts';

/** All lines, oldest first, and the last one that was read. */
const lines: JournalLine[] = [];
let last = 0;

/** One reading after the other, or lines that come in between would be read twice. */
let reading = Promise.resolve();
const readOn = (): Promise<void> => (reading = reading.then(readMore, readMore));

async function readMore(): Promise<void> {
  const fresh = await db.journal.where('id').above(last).sortBy('id');
  for (const line of fresh) lines.push(line);
  last = lines.at(-1)?.id ?? last;
}

function forget(): void {
  lines.length = 0;
  last = 0;
}

const api = {
  /** Lines were taken out: all of them are read anew when next asked for. */
  forget,

  /** The newest lines that are asked for, and how many there are in all. */
  async find(
    filter: JournalFilter,
    most: number,
    newestId: number
  ): Promise<{ lines: JournalLine[]; total: number; all: number }> {
    // The journal was emptied and begun anew.
    if (newestId < last) forget();
    if (newestId > last) await readOn();
    const found: JournalLine[] = [];
    let total = 0;
    for (let i = lines.length - 1; i >= 0; i--) {
      const line = lines[i]!;
      if (!isAskedFor(line, filter)) continue;
      total++;
      if (found.length < most) found.push(line);
    }
    return { lines: found, total, all: lines.length };
  }
};

export type JournalWorker = typeof api;
expose(api);
