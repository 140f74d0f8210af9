import type { Problem } from '$lib/core/model/place.ts';
import type { Twin } from '$lib/core/model/twin.ts';
import { withoutConflicts } from '$lib/core/twins/merge/mergePosts.ts';
import type { TalkWorker } from '$lib/make/post.ts';
import { note } from '$lib/data/journal.ts';
import { acceptChanges } from './drift.ts';
import { attempt, type Report } from './tasks.svelte.ts';
import { planTwinUpdate } from './planTwinUpdate.ts';

/** What came of bringing several twins up to date. */
export interface ManyUpdated {
  updated: number;
  /** How many of them the outbox is still trying to send. */
  waiting: number;
  /** How many would not change, and count as in step. */
  same: number;
  /** Where both sides changed the same place, or that cannot be updated from here: left as they are. */
  left: Twin[];
  failed: { twin: Twin; problem: Problem }[];
  undo: () => Promise<void>;
}

/**
 * Brings twins up to date, one after the other, with all that does not conflict. One with a conflict
 * is left as it is, whole, for a person to look at.
 * @param options.onlyUntouched leaves alone what was edited by hand, conflict or not
 */
export async function updateMany(
  twins: readonly Twin[],
  worker: TalkWorker,
  signal: AbortSignal,
  report: Report,
  { onlyUntouched = false }: { onlyUntouched?: boolean } = {}
): Promise<ManyUpdated> {
  const done: ManyUpdated = { updated: 0, waiting: 0, same: 0, left: [], failed: [], undo };
  const undoes: (() => Promise<void>)[] = [];
  async function undo(): Promise<void> {
    for (const undoOne of undoes) await undoOne();
  }
  const same: Twin[] = [];
  for (const [i, twin] of twins.entries()) {
    if (signal.aborted) break;
    report(`${i + 1} of ${twins.length}`, i / twins.length);
    const planned = await attempt(() => planTwinUpdate(twin, worker, signal));
    if (planned.problem?.kind === 'stopped') break;
    const plan = planned.value;
    if (plan === null) await noteFailed(done, twin, planned.problem);
    else if (
      typeof plan === 'string' ||
      plan.merge.changes.some((change) => change.isConflict) ||
      (onlyUntouched && plan.merge.isEdited)
    )
      done.left.push(twin);
    else if (plan.merge.changes.length === 0) same.push(twin);
    else {
      const sent = await attempt(() => plan.apply(withoutConflicts(plan.merge)));
      if (sent.problem) done.failed.push({ twin, problem: sent.problem });
      else {
        done.updated++;
        undoes.push(sent.value.undo);
        if (!sent.value.isSent) done.waiting++;
      }
    }
  }
  done.same = same.length;
  if (same.length > 0) undoes.push(await acceptChanges(same));
  return done;
}

/** What could not even be compared is told in the journal. */
async function noteFailed(done: ManyUpdated, twin: Twin, problem: Problem): Promise<void> {
  done.failed.push({ twin, problem });
  const title = twin.post?.title ?? '';
  await note({ what: 'publish-failed', itemId: twin.id, title, problem });
}
