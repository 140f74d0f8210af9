import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { MakeFinding } from '../delivery/outbox.ts';
import { PlaceError } from '../model/place.ts';
import { anItem, aPostPayload } from '../testing.ts';
import type { Candidate } from './filter.ts';
import { newLane, type Lane } from './lane.ts';
import { recordId } from './record.ts';
import { advance, makeForTargets, run } from './runner.ts';
import { laneWorldOf, MemoryStore } from './testing.ts';

const NOW = Date.parse('2026-05-20T12:00:00Z');
const never = new AbortController().signal;
const candidate: Candidate = {
  item: anItem({ id: 'v', kind: 'video' }),
  words: 100,
  owner: '',
  likeMade: null,
  isInPlaylist: false,
  twin: { other: null, isSetAside: false, isInHand: false }
};
const payload = aPostPayload({ title: 'Reeds' });
const laneOf = (mode: Lane['approval']['mode']): Lane => {
  const lane = newLane('l', 'Lane', 'Etc/UTC', NOW);
  return {
    ...lane,
    since: 0,
    filter: { ...lane.filter, scope: 'oldest-first' },
    approval: { mode, upToDate: 'ask' },
    pace: { ...lane.pace, hours: { from: 0, to: 24 }, gap: 0 },
    targets: [{ placeId: 'b', status: 'public', categories: [], tags: [] }]
  };
};

/** A world of one item, whose entries are published as soon as they are delivered. */
function oneItem(findings: MakeFinding[] = []) {
  const store = new MemoryStore();
  let now = NOW;
  const world = laneWorldOf({
    store,
    now: () => (now += 1000),
    candidates: () => [candidate],
    make: async () => ({ key: 'k', payload, findings, transfer: null }),
    async deliver(key) {
      const entry = store.outbox.get(key)!;
      store.outbox.set(key, {
        ...entry,
        state: 'published',
        publishedRevision: entry.revision,
        url: 'u'
      });
    }
  });
  return { world, store };
}

test('what was undone is left alone until the user asks for it, and then is made once more', async () => {
  const { world, store } = oneItem();
  const lane = laneOf('always');
  const id = recordId('l', 'v');
  await run(lane, world, '1', never);
  await advance(lane, world);
  assert.equal(store.kept.get(id)?.state, 'published');
  // It is undone, whole.
  store.outbox.set('k', {
    ...store.outbox.get('k')!,
    state: 'removed',
    wanted: 'removed',
    url: ''
  });
  store.kept.set(id, { ...store.kept.get(id)!, state: 'undone' });
  assert.equal((await run(lane, world, '2', never)).made, 0);
  assert.equal(store.outbox.get('k')?.state, 'removed');
  // As “Make again” leaves it.
  store.kept.set(id, { ...store.kept.get(id)!, state: 'found', again: true, keys: [] });
  assert.equal((await run(lane, world, '3', never)).made, 1);
  assert.equal(store.outbox.get('k')?.state, 'planned');
  await advance(lane, world);
  assert.equal(store.kept.get(id)?.state, 'published');
  assert.equal(store.kept.get(id)?.again, false);
});

test('what somebody removed by hand is not made by a lane that comes upon it', async () => {
  const { world, store } = oneItem();
  await run(laneOf('always'), world, '1', never);
  store.outbox.set('k', { ...store.outbox.get('k')!, state: 'removed', laneId: '' });
  store.kept.clear();
  const done = await run(laneOf('always'), world, '2', never);
  assert.deepEqual([done.made, store.outbox.get('k')?.state], [0, 'removed']);
});

test('a blocking finding waits for review in every mode; others only where checks are asked for', async () => {
  const finding = (level: MakeFinding['level']): MakeFinding => ({
    level,
    of: 'post',
    finding: { kind: 'not-from-talk' }
  });
  for (const [mode, findings, state] of [
    ['always', [], 'planned'],
    ['always', [finding('wrong')], 'planned'],
    ['always', [finding('blocking')], 'in-review'],
    ['if-no-check-complains', [], 'planned'],
    ['if-no-check-complains', [finding('look')], 'in-review'],
    ['after-review', [], 'in-review']
  ] as const) {
    const { world, store } = oneItem([...findings]);
    await run(laneOf(mode), world, '1', never);
    assert.equal(store.outbox.get('k')?.state, state, `${mode}, ${findings[0]?.level}`);
    assert.deepEqual(store.outbox.get('k')?.findings, [...findings]);
  }
});

test('a rehearsal makes what a run would, and keeps nothing of it', async () => {
  const { world, store } = oneItem();
  const [rehearsed] = await makeForTargets(laneOf('always'), world, candidate, never);
  assert.deepEqual([store.outbox.size, store.kept.size, store.runs.size], [0, 0, 0]);
  await run(laneOf('always'), world, '1', never);
  const whenever = { created: 0, updated: 0, nextTry: 0 };
  assert.deepEqual({ ...rehearsed!.entry, ...whenever }, { ...store.outbox.get('k'), ...whenever });
  assert.equal(rehearsed!.isKnown, false);
});

test('a run that is stopped or fails says so, and keeps what it had made', async () => {
  const { world, store } = oneItem();
  const refused = {
    ...world,
    refresh: async () => Promise.reject(new PlaceError({ kind: 'busy' }))
  };
  const failed = await run(laneOf('always'), refused, '1', never);
  assert.deepEqual([failed.problem?.kind, failed.ended !== null], ['busy', true]);
  assert.deepEqual(store.runs.get('1'), failed);
  const stopping = new AbortController();
  stopping.abort();
  assert.equal((await run(laneOf('always'), world, '2', stopping.signal)).problem?.kind, 'stopped');
});
