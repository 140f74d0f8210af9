import type { Lane } from '$lib/core/lanes/lane.ts';
import { nextAllowed, type PaceSlot } from '$lib/core/lanes/pace.ts';
import { recordId } from '$lib/core/lanes/record.ts';
import {
  historyOf,
  makeForTargets,
  recordOfMade,
  type MadeForTarget
} from '$lib/core/lanes/runner.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { getItem } from '$lib/data/items.ts';
import { laneStore } from '$lib/data/lanes.ts';
import { lanesWorker } from '$lib/workers/lanes.ts';
import { runTask } from '../tasks.svelte.ts';
import { laneWorld } from './world.ts';

/** What a lane would make of one item, and when it would go out. Nothing is published or kept. */
export interface Rehearsed {
  itemId: string;
  made: MadeForTarget[];
  slot: PaceSlot | null;
}

/** Makes an item as a run of the lane would, and keeps nothing of it. @throws PlaceError */
export function rehearse(lane: Lane, itemId: string): Promise<Rehearsed> {
  return runTask(`Rehearsing “${lane.name}”`, async (signal) => {
    const candidate = await lanesWorker().candidate(lane, itemId);
    if (!candidate) throw new PlaceError({ kind: 'not-found', detail: 'The item is gone.' });
    const made = await makeForTargets(lane, laneWorld, candidate, signal);
    return { itemId, made, slot: await nextSlot(lane) };
  });
}

/** When what a lane makes next would go out. */
async function nextSlot(lane: Lane): Promise<PaceSlot | null> {
  const entries = (await laneStore.entries(lane.id)).filter((e) => e.wanted === 'published');
  return nextAllowed(lane.pace, await historyOf(lane, laneWorld, entries), Date.now());
}

/** Keeps what was rehearsed as it is; it goes out at the pace of the lane. */
export async function keepRehearsed(lane: Lane, { itemId, made }: Rehearsed): Promise<void> {
  const item = await getItem(itemId);
  const fresh = made.filter((m) => !m.isKnown);
  const now = Date.now();
  // Whoever keeps it has looked at it; what a check blocks waits all the same.
  const entries = fresh.map(({ entry }) => ({
    ...entry,
    state: entry.findings.some((f) => f.level === 'blocking')
      ? ('in-review' as const)
      : ('planned' as const),
    created: now,
    updated: now
  }));
  const record = recordOfMade(
    {
      id: recordId(lane.id, itemId),
      laneId: lane.id,
      itemId,
      title: item?.title ?? '',
      url: item?.url ?? '',
      runId: 'rehearsal',
      state: 'found',
      reason: null,
      problem: null,
      attempts: 0,
      nextTry: 0,
      keys: [],
      found: now,
      changed: now,
      again: false
    },
    entries,
    now
  );
  await laneStore.saveMade(
    record,
    entries,
    fresh.flatMap((m) => m.made.transfer ?? [])
  );
}
