import type { Item } from '$lib/core/model/item.ts';
import { readDetails } from './details.ts';
import { attempt, type Report } from './tasks.svelte.ts';

/** Videos that are read at once: a site is not to be pressed. */
const AT_ONCE = 4;

/**
 * Reads captions and chapters of several videos.
 * @returns how many could not be read
 */
export async function readMany(
  videos: readonly Item[],
  signal: AbortSignal,
  report: Report
): Promise<{ read: number; failed: number }> {
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
}
