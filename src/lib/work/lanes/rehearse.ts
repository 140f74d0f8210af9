import { historyOf, type Made } from '$lib/core/lanes/drive.ts';
import type { Lane, LaneTarget } from '$lib/core/lanes/lane.ts';
import { newEntry } from '$lib/core/lanes/outbox.ts';
import { planSlots, type PaceSlot } from '$lib/core/lanes/pace.ts';
import { recordId, type LaneRecord } from '$lib/core/lanes/record.ts';
import { getItem } from '$lib/data/items.ts';
import { laneShelf } from '$lib/data/lanes.ts';
import { lanesWorker } from '$lib/workers/lanes.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { runTask } from '../tasks.svelte.ts';
import { laneWorld } from './world.ts';

/** What a lane would make of one item, and when it would go out. Nothing is placed or kept. */
export interface Rehearsed {
  itemId: string;
  made: { target: LaneTarget; made: Made; isThereAlready: boolean }[];
  slot: PaceSlot | null;
}

/** @throws PlaceError */
export function rehearse(lane: Lane, itemId: string): Promise<Rehearsed> {
  return runTask(`Rehearsing “${lane.name}”`, async (signal) => {
    const world = laneWorld(signal, true);
    const [candidate] = await lanesWorker().candidates(lane, [itemId]);
    if (!candidate) throw new PlaceError({ kind: 'not-found', detail: 'The item is gone.' });
    const made: Rehearsed['made'] = [];
    for (const target of lane.targets) {
      const one = await world.make(lane, candidate, target);
      const isThereAlready = (await laneShelf.entry(one.key)) !== null;
      made.push({ target, made: one, isThereAlready });
    }
    return { itemId, made, slot: await nextSlot(lane, 0) };
  });
}

/** When what a lane makes next would go out, after so many that wait already. */
export async function nextSlot(lane: Lane, before: number): Promise<PaceSlot | null> {
  const entries = (await laneShelf.entries(lane.id)).filter((e) => e.wanted === 'placed');
  const history = await historyOf(lane, laneWorld(new AbortController().signal), entries);
  return planSlots(lane.pace, history, Date.now(), before + 1).at(-1) ?? null;
}

/** Keeps what was rehearsed as it is; it goes out at the pace of the lane. @throws PlaceError */
export async function keepRehearsed(lane: Lane, { itemId, made }: Rehearsed): Promise<void> {
  const item = await getItem(itemId);
  const fresh = made.filter((m) => !m.isThereAlready);
  // The file of a video is there already; now it is readied to be sent as well.
  if (lane.make.kind === 'video' && item)
    await runTask(`Keeping “${item.title}”`, async (signal) => {
      const { makeNarrated } = await import('./makeNarrated.ts');
      for (const { target } of fresh) await makeNarrated(item, target, signal, false);
    });
  const now = Date.now();
  const entries = fresh.map(({ target: { placeId }, made: { key, payload } }) =>
    newEntry({ key, itemId, placeId, payload, laneId: lane.id, state: 'planned' }, now)
  );
  const record: LaneRecord = {
    ...{ id: recordId(lane.id, itemId), laneId: lane.id, itemId, runId: 'rehearsal' },
    ...{ title: item?.title ?? '', url: item?.url ?? '', state: 'planned' },
    ...{ reason: null, problem: null, attempts: 0, nextTry: 0 },
    ...{ keys: entries.map((e) => e.key), found: now, changed: now }
  };
  await laneShelf.shelve(record, entries);
}
