import assert from 'node:assert/strict';
import test from 'node:test';
import { seeded } from '../seeded.ts';
import { overviewOf, reachOf, type ReachSubject } from './overview.ts';

const DAY = 86_400_000;
const NOW = Date.parse('2026-11-26T12:00:00Z');

/** Updates at two networks, one of which answers three times as often; and videos of two lengths. */
function subjects(): ReachSubject[] {
  const next = seeded(11);
  const some = (mean: number) => Math.round(mean * (0.7 + 0.6 * next()));
  const updates = Array.from({ length: 60 }, (_, i): ReachSubject => ({
    id: `update ${i}`,
    kind: 'update',
    placeId: i % 2 ? 'notes' : 'pages',
    laneId: '',
    published: NOW - (2 + i) * DAY,
    duration: null,
    form: 'text',
    totals: { likes: some(i % 2 ? 90 : 30), shares: 1 }
  }));
  const videos = Array.from({ length: 40 }, (_, i): ReachSubject => ({
    id: `video ${i}`,
    kind: 'video',
    placeId: 'tube',
    laneId: i % 3 ? 'weekly' : '',
    published: NOW - (5 + 3 * i) * DAY,
    duration: i % 2 ? 90 : 700,
    form: '',
    totals: { views: i === 7 ? 9000 : some(i % 2 ? 400 : 200) }
  }));
  return [...updates, ...videos];
}

test('what stands out is found, and groups are told apart by place and length, not by lane', () => {
  const { better, claims, compared, top } = overviewOf(subjects(), NOW, 'UTC');
  assert.equal(compared, 100);
  assert.deepEqual(
    better.map(({ id }) => id),
    ['video 7']
  );
  const of = (dimension: string) => claims.find((one) => one.dimension === dimension)!.groups;
  assert.deepEqual(
    of('place')
      .filter(({ isClear }) => isClear)
      .map(({ group, effect }) => [group, effect > 0]),
    [
      ['notes', true],
      ['pages', false]
    ]
  );
  assert.deepEqual(
    of('length').map(({ group, isClear }) => [group, isClear]),
    [
      ['under-3', true],
      ['10-20', true]
    ]
  );
  assert.ok(of('lane').every(({ isClear }) => !isClear));
  assert.equal(top[0]?.id, 'video 7');
});

test('reach is what a place tells of a kind, and nothing where it tells nothing', () => {
  assert.equal(reachOf('video', { likes: 3 }), null);
  assert.equal(reachOf('post', { views: 4, visits: 9 }), 9);
  assert.equal(reachOf('update', { likes: 3, votes: 4 }), 7);
  assert.deepEqual(overviewOf([], NOW, 'UTC').top, []);
});
