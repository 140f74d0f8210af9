import { laneWorldOf, MemoryStore } from './testing.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { advance } from './runner.ts';
import { recordId } from './record.ts';
import { newEntry } from '../delivery/outbox.ts';
import { type PostPayload } from '../delivery/payload.ts';
import { aLane, aPostPayload } from '../testing.ts';

const NOW = Date.parse('2026-05-04T06:00:00Z');
const HOUR = 3_600_000;

/** A lane with three things planned, and a world in which all is placed within a second. */
function threePlanned(status: PostPayload['status']) {
  const store = new MemoryStore();
  const entries = store.outbox;
  const records = store.kept;
  let now = NOW;
  const lane = aLane({ id: 'l', isOn: true, since: NOW, created: NOW, changed: NOW });
  const payload = aPostPayload({ title: 'Reeds', status });
  for (const [i, key] of ['a', 'b', 'c'].entries())
    entries.set(
      key,
      newEntry(
        { key, itemId: key, placeId: 'p', laneId: 'l', payload, state: 'planned' },
        NOW - 10 + i
      )
    );
  const world = laneWorldOf({
    store,
    now: () => now,
    async deliver(key) {
      now += 1000;
      const entry = entries.get(key)!;
      entries.set(key, { ...entry, state: 'published', publishedRevision: 1, updated: now });
    }
  });
  return { lane, world, entries, records };
}

test('dated posts are published at once, each for the moment that the pace gives it', async () => {
  const { lane, world, entries } = threePlanned('dated');
  for (let i = 0; i < 5; i++) await advance(lane, world);
  const dates = [...entries.values()].map((e) => (e.payload as PostPayload).date);
  // One a day, from eight on: all of them are placed within seconds, before the hours have begun.
  assert.ok(
    world.now() < NOW + HOUR && [...entries.values()].every((e) => e.state === 'published')
  );
  assert.deepEqual(dates, [
    '2026-05-04T08:00:00.000Z',
    '2026-05-05T08:00:00.000Z',
    '2026-05-06T08:00:00.000Z'
  ]);
});

test('what was published is told by its record at once, and once all of its places have it', async () => {
  const { lane, world, entries, records } = threePlanned('dated');
  const keys = ['a', 'b'];
  // Two of the three go to two places of one item.
  for (const key of keys) entries.set(key, { ...entries.get(key)!, itemId: 'v' });
  const id = recordId('l', 'v');
  records.set(id, {
    id,
    laneId: 'l',
    itemId: 'v',
    title: 'Reeds',
    url: '',
    runId: 'r',
    state: 'planned',
    reason: null,
    problem: null,
    attempts: 0,
    nextTry: 0,
    keys,
    found: NOW,
    changed: NOW,
    again: false
  });
  await advance(lane, world);
  assert.equal(records.get(id)?.state, 'planned');
  await advance(lane, world);
  assert.equal(records.get(id)?.state, 'published');
});
