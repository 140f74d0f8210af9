import assert from 'node:assert/strict';
import { test } from 'node:test';
import { moveOn, type LaneWorld } from './drive.ts';
import { newLane } from './lane.ts';
import { recordId, type LaneRecord } from './record.ts';
import { newEntry, type OutboxEntry, type PostPayload } from './outbox.ts';

const NOW = Date.parse('2026-05-04T06:00:00Z');
const HOUR = 3_600_000;

/** A lane with three things planned, and a world in which all is placed within a second. */
function threePlanned(status: PostPayload['status']) {
  const entries = new Map<string, OutboxEntry>();
  const records = new Map<string, LaneRecord>();
  let now = NOW;
  const lane = {
    ...newLane('l', 'Lane', 'Etc/UTC', NOW),
    ...{ isOn: true, since: NOW }
  };
  const payload: PostPayload = {
    ...{ title: 'Reeds', html: '', slug: '', excerpt: '', author: '', categories: [], tags: [] },
    ...{ comments: 'open', picture: null, status, date: null }
  };
  for (const [i, key] of ['a', 'b', 'c'].entries())
    entries.set(
      key,
      newEntry(
        { key, itemId: key, placeId: 'p', laneId: 'l', payload, state: 'planned' },
        NOW - 10 + i
      )
    );
  const world: LaneWorld = {
    now: () => now,
    shelf: {
      records: async () => [...records.values()],
      record: async (id) => records.get(id) ?? null,
      saveRecords: async (some) => some.forEach((r) => records.set(r.id, r)),
      entries: async () => [...entries.values()],
      entry: async (key) => entries.get(key) ?? null,
      shelve: async () => {},
      saveEntry: async (entry) => void entries.set(entry.key, entry)
    },
    candidates: async () => [],
    make: async () => {
      throw new Error('Nothing is made here.');
    },
    allowances: async () => [],
    async settle(key) {
      now += 1000;
      const entry = entries.get(key)!;
      entries.set(key, { ...entry, state: 'placed', placedRevision: 1, updated: now });
    },
    pausedUntil: async () => 0,
    pause: async () => {},
    resume: async () => {}
  };
  return { lane, world, entries, records };
}

test('dated posts are placed at once, each for the moment that the pace gives it', async () => {
  const { lane, world, entries } = threePlanned('dated');
  for (let i = 0; i < 5; i++) await moveOn(lane, world);
  const dates = [...entries.values()].map((e) => (e.payload as PostPayload).date);
  // One a day, from eight on: all of them are placed within seconds, before the hours have begun.
  assert.ok(world.now() < NOW + HOUR && [...entries.values()].every((e) => e.state === 'placed'));
  assert.deepEqual(dates, [
    ...['2026-05-04T08:00:00.000Z', '2026-05-05T08:00:00.000Z', '2026-05-06T08:00:00.000Z']
  ]);
});

test('what was placed is told by its record at once, and once all of its places have it', async () => {
  const { lane, world, entries, records } = threePlanned('dated');
  const keys = ['a', 'b'];
  // Two of the three go to two places of one item.
  for (const key of keys) entries.set(key, { ...entries.get(key)!, itemId: 'v' });
  const id = recordId('l', 'v');
  records.set(id, {
    ...{ id, laneId: 'l', itemId: 'v', title: 'Reeds', url: '', runId: 'r', state: 'planned' },
    ...{ reason: null, problem: null, attempts: 0, nextTry: 0, keys, found: NOW, changed: NOW }
  });
  await moveOn(lane, world);
  assert.equal(records.get(id)?.state, 'planned');
  await moveOn(lane, world);
  assert.equal(records.get(id)?.state, 'placed');
});
