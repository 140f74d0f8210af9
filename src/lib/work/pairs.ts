import type { Relation, Tie } from '$lib/core/model/tie.ts';
import { tieId } from '$lib/core/model/tie.ts';
import { note } from '$lib/data/journal.ts';
import { decideTies, restoreTies } from '$lib/data/ties.ts';
import { videosToRead } from '$lib/data/unpaired.ts';
import { readDetails } from './details.ts';
import { attempt, runTask } from './tasks.svelte.ts';

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
  for (const { video, titles, relation } of decided)
    await note({
      what: relation === 'none' ? 'not-a-pair' : 'paired',
      itemId: video,
      title: titles.video
    });
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
  for (const { video, titles } of decided)
    await note({ what: 'unpaired', itemId: video, title: titles.video });
}

/** Videos that are read at once: a site is not to be pressed. */
const AT_ONCE = 4;

/**
 * Reads the captions of all videos without a post, since what is said tells more than a title.
 * @returns how many could not be read
 */
export function readCaptionsForPairing(): Promise<{ read: number; failed: number }> {
  return runTask('Reading captions', async (signal, report) => {
    const videos = await videosToRead();
    const waiting = [...videos];
    let [read, failed] = [0, 0];
    const readOn = async (): Promise<void> => {
      for (;;) {
        const video = waiting.shift();
        if (!video) return;
        const { problem } = await attempt(() => readDetails(video, signal));
        signal.throwIfAborted();
        if (problem) failed++;
        else read++;
        report(`${read + failed} of ${videos.length}`, (read + failed) / videos.length);
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, readOn));
    return { read, failed };
  });
}
