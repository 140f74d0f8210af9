import { laneWorldOf, MemoryStore } from './testing.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { PlaceError } from '../model/place.ts';
import { anItem } from '../testing.ts';
import { run } from './runner.ts';
import { newLane, type Lane } from './lane.ts';
import type { Candidate } from './filter.ts';

const NOW = Date.parse('2026-05-20T12:00:00Z');

const candidate: Candidate = {
  item: anItem({ id: 'v', kind: 'video', language: 'de' }),
  words: 100,
  owner: '',
  likeMade: null,
  isInPlaylist: false,
  twin: { other: null, isSetAside: false, isInHand: false }
};

/** A world in which nothing can be made, and that counts how often it was asked. */
function emptyHanded(detail: string) {
  const store = new MemoryStore();
  const asked = { count: 0 };
  let now = NOW;
  const world = laneWorldOf({
    now: () => (now += 1000),
    store,
    candidates: () => [candidate],
    async make() {
      asked.count++;
      throw new PlaceError({ kind: 'nothing-to-make', detail });
    }
  });
  return { world, records: store.kept, asked };
}
const never = new AbortController().signal;
const laneOf = (change: Partial<Lane> = {}): Lane => {
  const lane = newLane('l', 'Lane', 'Etc/UTC', NOW);
  return {
    ...lane,
    since: 0,
    filter: { ...lane.filter, scope: 'oldest-first' as const },
    targets: [{ placeId: 'n', status: 'public', categories: [], tags: [] }],
    ...change
  };
};

test('an item that gives nothing is left out with why, and not tried again in the next run', async () => {
  const { world, records, asked } = emptyHanded('language');
  for (const id of ['1', '2', '3']) await run(laneOf(), world, id, never);
  assert.equal(asked.count, 1);
  const [record] = records.values();
  assert.equal(record?.state, 'dropped');
  assert.deepEqual(record?.reason, { kind: 'nothing-to-make', why: 'language' });
});

test('once the lane is set otherwise it is tried anew', async () => {
  const { world, asked } = emptyHanded('no-poll');
  await run(laneOf(), world, '1', never);
  await run(laneOf({ changed: NOW + 3_600_000 }), world, '2', never);
  assert.equal(asked.count, 2);
});

test('why is one of the known reasons, whatever was said', async () => {
  const { world, records } = emptyHanded('<b>who knows</b>');
  await run(laneOf(), world, '1', never);
  assert.deepEqual([...records.values()][0]?.reason, {
    kind: 'nothing-to-make',
    why: 'nothing-stated'
  });
});
