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

test('what was given a time goes out then: at that time, within the pace, or at any cost', async () => {
  const { lane, world, entries } = threePlanned('public');
  const give = (key: string, at: string, insists = false) =>
    entries.set(key, { ...entries.get(key)!, pin: { at: Date.parse(at), insists } });
  give('a', '2026-05-07T12:00:00Z');
  give('b', '2026-05-06T03:00:00Z', true);
  const sent: string[] = [];
  // The lane is looked at whenever it asked to be, and nothing is in its way.
  let at = NOW;
  const led = {
    ...world,
    now: () => at,
    deliver: async (key: string) => {
      sent.push(`${key} ${new Date(at).toISOString().slice(0, 16)}`);
      entries.set(key, {
        ...entries.get(key)!,
        state: 'published',
        publishedRevision: 1,
        updated: at
      });
    }
  };
  for (let i = 0; i < 20; i++) {
    const next = await advance(lane, led);
    if (next === null) break;
    at = Math.max(at + 1, next);
  }
  assert.deepEqual(sent, ['c 2026-05-04T08:00', 'b 2026-05-06T03:00', 'a 2026-05-07T12:00']);
});

test('a dated post that was given a time has that date at its place', async () => {
  const { lane, world, entries } = threePlanned('dated');
  const pin = { at: Date.parse('2026-05-05T15:30:00Z'), insists: false };
  entries.set('c', { ...entries.get('c')!, pin });
  for (let i = 0; i < 5; i++) await advance(lane, world);
  const dates = ['a', 'b', 'c'].map((key) => (entries.get(key)!.payload as PostPayload).date);
  assert.deepEqual(dates, [
    '2026-05-04T08:00:00.000Z',
    '2026-05-06T08:00:00.000Z',
    '2026-05-05T15:30:00.000Z'
  ]);
});
