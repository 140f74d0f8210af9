import assert from 'node:assert/strict';
import { test } from 'node:test';
import { cyclesOf, overlapsOf } from './graph.ts';
import { newLane, type Lane } from './lane.ts';
import { imprintOf, isAlike } from './likeness.ts';
import { isTooNarrow, rateOf } from './rate.ts';

const lane = (id: string, from: string[], to: string[]): Lane => {
  const made = newLane(id, id, 'Etc/UTC', 0);
  return {
    ...made,
    source: { ...made.source, places: from },
    targets: to.map((placeId) => ({ placeId, status: 'draft', categories: [], tags: [] }))
  };
};

test('lanes that lead back to where they began are found, each way once', () => {
  const lanes = [
    lane('a', ['ch'], ['blog']),
    lane('b', ['blog'], ['other']),
    lane('c', ['other'], ['ch'])
  ];
  assert.deepEqual(cyclesOf(lanes), [
    [
      { lane: 'a', from: 'ch', to: 'blog' },
      { lane: 'b', from: 'blog', to: 'other' },
      { lane: 'c', from: 'other', to: 'ch' }
    ]
  ]);
  assert.deepEqual(cyclesOf(lanes.slice(0, 2)), []);
  assert.equal(cyclesOf([lane('a', ['ch'], ['ch'])]).length, 1);
  assert.equal(cyclesOf([lane('a', ['x'], ['y']), lane('b', ['y'], ['x', 'z'])]).length, 1);
});

test('lanes that would make the same are found', () => {
  const [a, b, c] = [
    lane('a', ['ch'], ['blog']),
    lane('b', ['ch', 'x'], ['blog']),
    lane('c', ['x'], ['blog'])
  ];
  assert.deepEqual(
    overlapsOf([a, b, c], a).map((l) => l.id),
    ['b']
  );
  const updates = { ...b, make: { ...b.make, kind: 'update' as const } };
  assert.deepEqual(overlapsOf([a, updates], a), []);
});

const TALK =
  'Wind the warp with even hands, and count the ends in groups of ten. Tie the cross before you take it off, ' +
  'for a cross that is lost is an afternoon that is lost. Chain it loosely and hang it in the shade.';

test('a text that lost its marks and some of its words is known again, another is not', () => {
  const made = imprintOf(TALK);
  assert.ok(
    isAlike(made, imprintOf(`Now read: ${TALK.replace('in the shade', 'up')} (c) some place`))
  );
  assert.ok(isAlike(made, imprintOf(TALK.toUpperCase().replaceAll('.', '\n\n'))));
  assert.ok(
    !isAlike(
      made,
      imprintOf(
        'Madder wants time: an hour below a simmer, a night in the pot, and a rinse in soft water.'
      )
    )
  );
  // So little text is no sign of anything.
  assert.ok(!isAlike(imprintOf('Wind the warp'), imprintOf('Wind the warp')));
});

test('a source that gives too little for a pace is reported', () => {
  const now = Date.parse('2026-06-01T00:00:00Z');
  const ago = (days: number) => now - days * 86_400_000;
  const rate = rateOf([ago(3), ago(12), ago(30), ago(400), ago(-1)], now);
  assert.equal(rate.count, 5);
  assert.deepEqual(rate.weeks.slice(-5), [1, 0, 0, 1, 1]);
  assert.equal(rate.everyDays, 28);
  assert.ok(isTooNarrow(rate, 1) && !isTooNarrow(rate, null));
  assert.ok(isTooNarrow(rateOf([], now), 1));
  assert.ok(
    !isTooNarrow(
      rateOf(
        Array.from({ length: 84 }, (_, i) => ago(i)),
        now
      ),
      1
    )
  );
});
