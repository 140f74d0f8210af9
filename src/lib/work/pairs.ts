import type { NewJournalLine } from '$lib/core/model/journal.ts';
import { tieId, type Relation, type Tie } from '$lib/core/model/tie.ts';
import { noteAll } from '$lib/data/journal.ts';
import { decideTies, restoreTies } from '$lib/data/ties.ts';
import { videosToRead } from '$lib/data/unpaired.ts';
import { readMany } from './readMany.ts';
import { runTask } from './tasks.svelte.ts';

/** What is decided about a video and a post. */
export interface Decided {
  video: string;
  post: string;
  relation: Relation | 'none';
  titles: Tie['titles'];
}

/**
 * Pairs, or says that something is no pair; all at once, in the journal as well.
 * @returns what undoes it
 */
export async function decidePairs(decided: readonly Decided[]): Promise<() => Promise<void>> {
  const at = new Date().toISOString();
  const before = await decideTies(decided.map((d) => ({ ...d, at })));
  await noteDecided(decided, ({ relation }) => (relation === 'none' ? 'not-a-pair' : 'paired'));
  return () => undecide(decided, before);
}

/** Takes decisions back. What had been decided before that holds again. */
export async function undecide(
  decided: readonly Omit<Decided, 'relation'>[],
  before: readonly Tie[] = []
): Promise<void> {
  await restoreTies(
    decided.map(({ video, post }) => tieId(video, post)),
    before
  );
  await noteDecided(decided, () => 'unpaired');
}

const noteDecided = <T extends Omit<Decided, 'relation'>>(
  decided: readonly T[],
  whatOf: (decided: T) => NewJournalLine['what']
): Promise<void> =>
  noteAll(decided.map((d) => ({ what: whatOf(d), itemId: d.video, title: d.titles.video })));

/**
 * Reads the captions of all videos without a post, since what is said tells more than a title.
 * @returns how many could not be read
 */
export const readCaptionsForPairing = (): Promise<{ read: number; failed: number }> =>
  runTask('Reading captions', async (signal, report) =>
    readMany(await videosToRead(), signal, report)
  );
