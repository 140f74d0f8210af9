import type { Lane } from '$lib/core/lanes/lane.ts';
import { planItems, type PlannedItem } from '$lib/core/lanes/plan.ts';
import { historyOf } from '$lib/core/lanes/runner.ts';
import { allLanes, laneStore } from '$lib/data/lanes.ts';
import { entriesIn } from '$lib/data/outbox.ts';
import { laneWorld } from './world.ts';

/** When all that is planned in a lane goes out, as far as is known now. */
export async function plannedOf(lane: Lane, now: number): Promise<PlannedItem[]> {
  const entries = (await laneStore.entries(lane.id)).filter((e) => e.wanted === 'published');
  const out = entries.filter((e) => e.state !== 'planned');
  return planItems(lane.pace, await historyOf(lane, laneWorld, out), entries, now);
}

/** The same of all lanes. */
export async function plannedItems(now: number): Promise<PlannedItem[]> {
  const laneIds = new Set((await entriesIn('planned')).map((e) => e.laneId));
  const all: PlannedItem[] = [];
  for (const lane of await allLanes())
    if (laneIds.has(lane.id)) all.push(...(await plannedOf(lane, now)));
  return all;
}
