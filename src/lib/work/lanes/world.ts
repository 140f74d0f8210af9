import type { LaneWorld } from '$lib/core/lanes/drive.ts';
import type { Lane } from '$lib/core/lanes/lane.ts';
import type { Allowance } from '$lib/core/lanes/pace.ts';
import { longer } from '$lib/core/lanes/run.ts';
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
  allowances,
  settle: workOn,
  pausedUntil: async (placeId) => (await db.pauses.get(placeId))?.until ?? 0,
  async pause(placeId, problem) {
    const before = (await db.pauses.get(placeId)) ?? null;
    await db.pauses.put(longer(before, placeId, problem, Date.now()));
  },
  resume: (placeId) => db.pauses.delete(placeId)
});

/** What the places of a lane still take, as they said when they were asked last. */
async function allowances(lane: Lane): Promise<Allowance[]> {
  const told: Allowance[] = [];
  for (const { placeId } of lane.targets) {
    const network = await db.networks.get(placeId);
    const known = network
      ? network.allowance && { ...network.allowance, asOf: network.checked }
      : (await db.places.get(placeId))?.allowance;
    if (!known) continue;
    const used = (await db.outbox.where({ placeId }).toArray())
      .filter((e) => e.state === 'placed' || e.placedRevision > 0)
      .map((e) => e.updated);
    told.push({ ...known, asOf: Date.parse(known.asOf), used });
  }
  return told;
}
