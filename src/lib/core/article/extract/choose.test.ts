import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Candidate } from './candidate.ts';
import { choose } from './choose.ts';
import type { LeftOutReason } from './written.ts';

const candidate = (index: number, given: Partial<Candidate> = {}): Candidate => ({
  index,
  words: Array.from({ length: 10 }, (_, k) => ({ text: `w${k}`, at: index * 10 + k })),
  stems: new Set([`a${index}`, `b${index}`, `c${index}`]),
  must: 0.5,
  mustNot: 0.1,
  takeaway: 0.1,
  isQuestion: false,
  isKept: false,
  dependsOnPrevious: false,
  chapter: 0,
  ...given
});
function chosen(candidates: Candidate[], wanted: number, mostMustNot = 0.5) {
  const leftOut = new Map<number, LeftOutReason>();
  const taken = choose(candidates, { wanted, mostMustNot }, leftOut).map((c) => c.index);
  return { taken, leftOut: Object.fromEntries(leftOut) };
}

test('what must be there comes first, in the order of the talk, as far as there is room', () => {
  const { taken, leftOut } = chosen(
    [candidate(0, { must: 0.2 }), candidate(1, { must: 0.7 }), candidate(2, { must: 0.9 })],
    20
  );
  assert.deepEqual(taken, [1, 2]);
  assert.deepEqual(leftOut, { 0: 'over-length' });
});

test('what would say little is not taken, however much room there is', () => {
  const { taken, leftOut } = chosen([candidate(0, { mustNot: 0.7 }), candidate(1)], 1000);
  assert.deepEqual(taken, [1]);
  assert.deepEqual(leftOut, { 0: 'says-little' });
});

test('a sentence that depends on the one before comes with it or not at all', () => {
  const leaning = { must: 0.9, dependsOnPrevious: true };
  assert.deepEqual(
    chosen([candidate(0, { must: 0.3 }), candidate(1, leaning), candidate(2)], 20).taken,
    [0, 1]
  );
  assert.deepEqual(chosen([candidate(0), candidate(2, leaning)], 100).leftOut, {
    2: 'depends-on-previous'
  });
  assert.deepEqual(chosen([candidate(0, { mustNot: 0.9 }), candidate(1, leaning)], 100).taken, []);
});

test('what is said twice is taken once', () => {
  const stems = new Set(['warp', 'board', 'peg']);
  assert.deepEqual(chosen([candidate(0, { stems }), candidate(5, { stems })], 100).leftOut, {
    5: 'said-twice'
  });
});

test('whatever there is to choose from, the room is kept and each is chosen or left out with a reason', () => {
  const any = fc.record({
    must: fc.double({ min: 0, max: 1, noNaN: true }),
    mustNot: fc.double({ min: 0, max: 1, noNaN: true }),
    dependsOnPrevious: fc.boolean(),
    chapter: fc.integer({ min: 0, max: 2 })
  });
  fc.assert(
    fc.property(fc.array(any, { maxLength: 30 }), fc.integer({ min: 0, max: 300 }), (all, room) => {
      const { taken, leftOut } = chosen(
        all.map((given, i) => candidate(i, given)),
        room
      );
      assert.ok(taken.length * 10 <= room);
      assert.deepEqual(
        [...taken, ...Object.keys(leftOut).map(Number)].sort((a, b) => a - b),
        all.map((_, i) => i)
      );
      for (const i of taken)
        if (all[i]?.dependsOnPrevious) assert.ok(taken.includes(i - 1), `${i} without ${i - 1}`);
    })
  );
});
