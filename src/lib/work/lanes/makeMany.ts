import { localZone } from '$lib/localZone.ts';
import { v4 } from 'uuid';
import { laneOfItems, type Spread } from '$lib/core/lanes/laneOfItems.ts';
import type { LaneTarget } from '$lib/core/lanes/lane.ts';
import type { LaneRun } from '$lib/core/lanes/run.ts';
import { itemsByIds } from '$lib/data/items.ts';
import { addLane } from '$lib/data/lanes.ts';
import { runLane } from './runLane.ts';

/**
 * Makes posts of several videos, or narrated videos of several posts, in one go, by a lane of their own: it shows what it does, can be stopped,
 * goes on after the page is loaded anew, and is undone as a whole.
 * @param name of the lane
 * @returns what it made, or null where another tab makes it
 */
export async function makeMany(
  ids: readonly string[],
  name: string,
  target: Pick<LaneTarget, 'placeId' | 'status'>,
  spread: Spread
): Promise<LaneRun | null> {
  const items = [...(await itemsByIds(ids)).values()];
  const timeZone = localZone();
  const of = { id: v4(), name, zone: timeZone, now: Date.now() };
  const lane = laneOfItems(items, of, target, spread);
  await addLane(lane);
  return runLane(lane.id);
}
