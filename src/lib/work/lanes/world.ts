import type { LaneWorld } from '$lib/core/lanes/drive.ts';
import { longer } from '$lib/core/lanes/run.ts';
import { allowancesOf } from '$lib/data/allowances.ts';
import { db } from '$lib/data/db.ts';
import { laneShelf } from '$lib/data/lanes.ts';
import { lanesWorker } from '$lib/workers/lanes.ts';
import { workOn } from '../post.ts';
import { within } from './within.ts';

/**
 * The world of lanes as it is: the database, the workers and the outbox.
 * @param isRehearsal what is made is shown only
 */
export const laneWorld = (signal: AbortSignal, isRehearsal = false): LaneWorld => ({
  shelf: laneShelf,
  now: Date.now,
  candidates: async (lane) => {
    const ids = await db.items.where('placeId').anyOf(lane.source.places).primaryKeys();
    return lanesWorker().candidates(lane, ids);
  },
  make: (lane, { item }, target) =>
    within(lane.make.stepLimit, signal, async (limited) => {
      if (lane.make.kind === 'post')
        return (await import('./makePost.ts')).makePost(lane, item, target, limited);
      if (lane.make.kind === 'video')
        return (await import('./makeNarrated.ts')).makeNarrated(item, target, limited, isRehearsal);
      return (await import('./makeUpdate.ts')).makeUpdate(lane, item, target);
    }),
  allowances: (lane) => allowancesOf(lane.targets.map((t) => t.placeId)),
  settle: workOn,
  pausedUntil: async (placeId) => (await db.pauses.get(placeId))?.until ?? 0,
  async pause(placeId, problem) {
    const before = (await db.pauses.get(placeId)) ?? null;
    await db.pauses.put(longer(before, placeId, problem, Date.now()));
  },
  resume: (placeId) => db.pauses.delete(placeId)
});
