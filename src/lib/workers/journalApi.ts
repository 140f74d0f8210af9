import type { JournalLine } from '$lib/core/model/journal.ts';
import { briefly, isAskedFor, type JournalFilter } from '$lib/core/model/journalFilter.ts';
import { journalExtent, linesAfter } from '$lib/data/journal.ts';

/** Lines that were read already, oldest first; which of them still stand is asked at every call. */
const lines: JournalLine[] = [];

/** One reading after the other, or lines that come in between would be read twice. */
let reading = Promise.resolve();
const readOn = (): Promise<void> => (reading = reading.then(readMore, readMore));

async function readMore(): Promise<void> {
  const { count, first, last } = await journalExtent();
  const known = lines.at(-1)?.id ?? 0;
  const isWhole = last >= known && (lines[0]?.id ?? first) === first;
  if (!isWhole) lines.length = 0;
  for (const line of await linesAfter(lines.at(-1)?.id ?? 0)) lines.push(line);
  // Lines were taken out of the middle.
  if (lines.length === count || isWhole === false) return;
  lines.length = 0;
  for (const line of await linesAfter(0)) lines.push(line);
}

export const journalApi = {
  /** The newest lines that are asked for, and how many there are in all. */
  async find(
    filter: JournalFilter,
    most: number
  ): Promise<{ lines: JournalLine[]; total: number; all: number }> {
    await readOn();
    const found: JournalLine[] = [];
    let total = 0;
    const isWorthIt = filter.isBrief ? briefly() : () => true;
    for (let i = lines.length - 1; i >= 0; i--) {
      const line = lines[i]!;
      if (!isWorthIt(line) || !isAskedFor(line, filter)) continue;
      total++;
      if (found.length < most) found.push(line);
    }
    return { lines: found, total, all: lines.length };
  }
};

export type JournalApi = typeof journalApi;
