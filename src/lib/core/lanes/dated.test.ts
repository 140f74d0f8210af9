import assert from 'node:assert/strict';
import { test } from 'node:test';
import { moveOn, type LaneWorld } from './drive.ts';
import { newLane } from './lane.ts';
import { newEntry, type OutboxEntry, type PostPayload } from './outbox.ts';

const NOW = Date.parse('2026-05-04T06:00:00Z');
const HOUR = 3_600_000;

test('dated posts are placed at once, each for the moment that the pace gives it', async () => {
  const entries = new Map<string, OutboxEntry>();
  let now = NOW;
  const lane = {
    ...newLane('l', 'Lane', 'Etc/UTC', NOW),
    ...{ isOn: true, since: NOW }
  };
  const payload: PostPayload = {
    ...{ title: 'Reeds', html: '', slug: '', excerpt: '', author: '', categories: [], tags: [] },
    ...{ comments: 'open', picture: null, status: 'dated', date: null }
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
      records: async () => [],
      saveRecords: async () => {},
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
  for (let i = 0; i < 5; i++) await moveOn(lane, world);
  const dates = [...entries.values()].map((e) => (e.payload as PostPayload).date);
  // One a day, from eight on: all of them are placed within seconds, before the hours have begun.
  assert.ok(now < NOW + HOUR && [...entries.values()].every((e) => e.state === 'placed'));
  assert.deepEqual(dates, [
    ...['2026-05-04T08:00:00.000Z', '2026-05-05T08:00:00.000Z', '2026-05-06T08:00:00.000Z']
  ]);
});
