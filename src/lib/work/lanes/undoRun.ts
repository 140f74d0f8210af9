import type { LaneRun } from '$lib/core/lanes/run.ts';
import { db } from '$lib/data/db.ts';
import { laneShelf, decide } from '$lib/data/lanes.ts';
import { undoPost } from '../post.ts';
import { runTask } from '../tasks.svelte.ts';

/** What became of taking a run back. */
export interface UndoneRun {
  undone: number;
  /** Titles of what could not be taken back. */
  left: string[];
}

/** Takes back all that a run made: what stands at the places is removed, what waits is dropped. */
export function undoRun(run: LaneRun): Promise<UndoneRun> {
  return runTask('Taking a run back', async (signal, report) => {
    const records = (await db.records.where({ runId: run.id }).toArray()).filter(
      (r) => r.keys.length > 0
    );
    const result: UndoneRun = { undone: 0, left: [] };
    for (const [i, record] of records.entries()) {
      signal.throwIfAborted();
      report(record.title, i / records.length);
      const { keys } = record;
      await decide([record], 'skip', Date.now());
      for (const key of keys) if (await db.outbox.get(key)) await undoPost(key);
      const stands = (await db.outbox.bulkGet(keys)).some((e) => e && e.state !== 'removed');
      if (stands) result.left.push(record.title);
      else result.undone++;
      await laneShelf.saveRecords([
        { ...record, keys, state: stands ? 'failed' : 'undone', changed: Date.now() }
      ]);
    }
    return result;
  });
}
