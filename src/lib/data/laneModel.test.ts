import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { EntryStore } from '../core/delivery/deliver.ts';
import { laneModel, type ModelStores } from '../core/lanes/laneModel.testing.ts';
import type { Lane } from '../core/lanes/lane.ts';
import type { LaneStore } from '../core/lanes/runner.ts';
import { db } from './db.ts';
import { addLane, getLane, laneStore, patchLane } from './lanes.ts';
import { entryStore } from './outbox.ts';

/** The stores of the application itself, empty but for the lanes. */
async function shipped(
  lanes: readonly Lane[],
  change: {
    lanes?: Partial<LaneStore>;
    entries?: Partial<EntryStore>;
    patch?: typeof patchLane;
  } = {}
): Promise<ModelStores> {
  await Promise.all(db.tables.map((table) => table.clear()));
  for (const lane of lanes) await addLane(lane);
  return {
    lanes: { ...laneStore, ...change.lanes },
    entries: { ...entryStore, ...change.entries },
    entriesAt: (placeId) => db.outbox.where({ placeId }).toArray(),
    lane: async (id) => (await getLane(id)) ?? null,
    patchLane: change.patch ?? patchLane
  };
}

const SEEDS = [11, 12, 13, 14];
const world = (seed: number) => ({ seed, items: 8, faults: 0.25 });

test('the shipped runner over the shipped stores: each item once, none lost, the pace kept', async () => {
  for (const seed of SEEDS)
    assert.deepEqual(await laneModel(world(seed), shipped), [], `seed ${seed}`);
});

/** Whether any of some worlds finds something wrong, or comes to no end. */
async function isFound(change: Parameters<typeof shipped>[1], faults = 0.25): Promise<boolean> {
  for (const seed of [...SEEDS, 15, 16, 17, 18, 19, 20]) {
    const wrong = await laneModel({ ...world(seed), faults }, (lanes) =>
      shipped(lanes, change)
    ).catch((e) => [String(e)]);
    if (wrong.length > 0) return true;
  }
  return false;
}

test('a lost answer that the store swallows is found', async () => {
  const save: EntryStore['save'] = async (entry) =>
    entryStore.save(
      entry.problem?.kind === 'no-answer' ? { ...entry, state: 'published', problem: null } : entry
    );
  assert.ok(await isFound({ entries: { save } }));
});

test('a failure that is put away as if it were wanted is found', async () => {
  const save: EntryStore['save'] = (entry) =>
    entryStore.save(entry.state === 'failed' ? { ...entry, state: 'removed' } : entry);
  assert.ok(await isFound({ entries: { save } }, 0.7));
});

test('a run that writes whole settings back over those of the user is found', async () => {
  const begun = new Map<string, Lane>();
  const saveRun: LaneStore['saveRun'] = async (run) => {
    await laneStore.saveRun(run);
    const lane = begun.get(run.laneId) ?? (await getLane(run.laneId));
    if (lane) begun.set(run.laneId, lane);
    if (run.ended !== null && lane) await db.lanes.put(lane);
  };
  assert.ok(await isFound({ lanes: { saveRun } }));
});
