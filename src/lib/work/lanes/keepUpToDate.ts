import type { Lane } from '$lib/core/lanes/lane.ts';
import { isPost } from '$lib/core/delivery/payload.ts';
import { entriesOfLane } from '$lib/data/outbox.ts';
import { getTwins } from '$lib/data/twins.ts';
import { lanesTalkWorker } from '$lib/workers/talk.ts';
import type { Report } from '../tasks.svelte.ts';
import { updateMany } from '../updateMany.ts';

/** Brings posts of a lane up to date whose videos changed since, as far as the lane may. */
export async function keepUpToDate(lane: Lane, signal: AbortSignal, report: Report): Promise<void> {
  const { upToDate } = lane.approval;
  if (lane.make.kind !== 'post' || upToDate === 'ask') return;
  const entries = (await entriesOfLane(lane.id)).filter(
    ({ payload, state }) => isPost(payload) && state === 'published'
  );
  const twins = await getTwins(entries.map((entry) => entry.itemId));
  const drifted = twins.filter(
    ({ standing, reason }) =>
      standing === 'drifted' &&
      reason.kind === 'differs' &&
      (reason.differences.length > 0 || reason.changes.some((change) => change.side === 'video'))
  );
  if (drifted.length === 0) return;
  report('Updating posts whose videos changed');
  const onlyUntouched = upToDate === 'untouched';
  await updateMany(drifted, lanesTalkWorker(), signal, report, { onlyUntouched });
}
