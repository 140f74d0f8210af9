import type { LaneRun } from '$lib/core/lanes/run.ts';
import { beginUndo, endUndo, recordsOfRun } from '$lib/data/lanes.ts';
import { deliverEntry } from '$lib/delivery/deliverEntry.ts';
import { runTask } from '../tasks.svelte.ts';

/** What became of undoing a run. */
export interface UndoneRun {
  undone: number;
  /** Titles of what could not be undone yet. */
  left: string[];
}

/**
 * Undoes all that a run made: what was published is removed, what waits is dropped. Closed in the
 * middle, it can be done once more: records name their entries until these are gone.
 */
export function undoRun(run: LaneRun): Promise<UndoneRun> {
  return runTask('Undoing a run', async (signal, report) => {
    const records = (await recordsOfRun(run.id)).filter(
      (r) => r.keys.length > 0 && r.state !== 'undone'
    );
    const result: UndoneRun = { undone: 0, left: [] };
    for (const [i, record] of records.entries()) {
      signal.throwIfAborted();
      report(record.title, i / records.length);
      for (const key of await beginUndo(record.id, Date.now())) await deliverEntry(key);
      if (await endUndo(record.id, Date.now())) result.undone++;
      else result.left.push(record.title);
    }
    return result;
  });
}
