import type { Problem } from '$lib/core/model/place.ts';
import type { Twin } from '$lib/core/model/twin.ts';
import { withoutConflicts } from '$lib/core/twins/merge/mergePosts.ts';
import type { TalkWorker } from '$lib/make/post.ts';
import { note } from '$lib/data/journal.ts';
import { acceptChanges } from './drift.ts';
import { attempt, type Report } from './tasks.svelte.ts';
import { planUpdate, updatePost } from './updatePost.ts';

/** What came of bringing several posts up to date. */
export interface ManyUpdated {
  /** Keys of posts that were updated, and how many of them the outbox is still trying to send. */
  updated: string[];
  waiting: number;
  /** How many would not change, and count as in step. */
  same: number;
  /** Where both sides changed the same place, or that cannot be updated from here: left as they are. */
  left: Twin[];
  failed: { twin: Twin; problem: Problem }[];
  /** Undoes that those which would not change count as in step. */
  undoSame: () => Promise<void>;
}

/**
 * Brings posts up to date, one after the other, with all that does not conflict. A post with a conflict
 * is left as it is, whole, for a person to look at.
 * @param options.onlyUntouched leaves posts alone that were edited by hand, conflict or not
 */
export async function updateMany(
  twins: readonly Twin[],
  worker: TalkWorker,
  signal: AbortSignal,
  report: Report,
  { onlyUntouched = false }: { onlyUntouched?: boolean } = {}
): Promise<ManyUpdated> {
  const done: ManyUpdated = {
    updated: [],
    waiting: 0,
    same: 0,
    left: [],
    failed: [],
    undoSame: async () => {}
  };
  const same: Twin[] = [];
  for (const [i, twin] of twins.entries()) {
    if (signal.aborted) break;
    report(`${i + 1} of ${twins.length}`, i / twins.length);
    const { video, post } = twin;
    if (!video || !post) {
      done.left.push(twin);
      continue;
    }
    const { value: plan, problem } = await attempt(() =>
      planUpdate(video.id, post.id, worker, signal)
    );
    if (problem) {
      if (problem.kind === 'stopped') break;
      done.failed.push({ twin, problem });
      const { title } = post;
      await note({ what: 'publish-failed', itemId: video.id, title, problem });
    } else if (
      typeof plan === 'string' ||
      plan.merge.changes.some((change) => change.isConflict) ||
      (onlyUntouched && plan.merge.isEdited)
    )
      done.left.push(twin);
    else if (plan.merge.changes.length === 0) same.push(twin);
    else {
      const sent = await attempt(() => updatePost(plan, withoutConflicts(plan.merge)));
      if (sent.problem) done.failed.push({ twin, problem: sent.problem });
      else {
        done.updated.push(sent.value.key);
        if (!sent.value.isSent) done.waiting++;
      }
    }
  }
  done.same = same.length;
  if (same.length > 0) done.undoSame = await acceptChanges(same);
  return done;
}
