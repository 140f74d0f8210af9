import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { findParts, type PartSearch, type Unit } from './parts.ts';

const weights = { lexical: 1, topical: 0, spread: 1, concentration: 20, axes: 0, ownRate: 0.5 };
const searchOf = (n: number, more: Partial<PartSearch> = {}): PartSearch => ({
  weights,
  begins: Array<number>(n).fill(0),
  length: () => -2,
  most: n,
  ...more
});
const unit = (...stems: string[]): Unit => ({ stems, point: null });

const WARP = [
  unit('warp', 'board', 'peg'),
  unit('warp', 'cross', 'board'),
  unit('peg', 'warp', 'board'),
  unit('board', 'cross', 'warp')
];
const DYE = [
  unit('indigo', 'vat', 'leaf'),
  unit('vat', 'indigo', 'lime'),
  unit('leaf', 'indigo', 'vat'),
  unit('indigo', 'lime', 'vat')
];

test('a text turns where its words change', () => {
  const units = [...WARP, ...DYE];
  const { starts, turns } = findParts(units, searchOf(units.length));
  assert.deepEqual(starts, [0, 4]);
  const likeliest = turns.indexOf(Math.max(...turns.slice(1)), 1);
  assert.equal(likeliest, 4);
});

test('a text of one matter is one part', () => {
  const units = [...WARP, ...WARP];
  assert.deepEqual(findParts(units, searchOf(units.length)).starts, [0]);
});

test('what speaks for a beginning moves it', () => {
  const units = [...WARP, ...WARP];
  const begins = units.map((_, i) => (i === 3 ? 20 : 0));
  assert.deepEqual(findParts(units, searchOf(units.length, { begins })).starts, [0, 3]);
});

test('a text without units has no parts', () => {
  assert.deepEqual(findParts([], searchOf(0)), { starts: [], turns: [] });
});

const texts = fc.array(
  fc
    .array(fc.constantFrom('warp', 'weft', 'loom', 'dye', 'vat', 'reed'), { maxLength: 5 })
    .map((stems) => unit(...stems)),
  { minLength: 1, maxLength: 25 }
);

test('parts cover the text in order, none longer than allowed, whatever is said', () => {
  fc.assert(
    fc.property(texts, fc.integer({ min: 1, max: 25 }), (units, most) => {
      const { starts, turns } = findParts(units, searchOf(units.length, { most }));
      assert.equal(starts[0], 0);
      const ends = [...starts.slice(1), units.length];
      for (const [i, start] of starts.entries()) {
        const length = (ends[i] ?? 0) - start;
        assert.ok(length >= 1 && length <= most, `part of ${length} at ${start}`);
      }
      assert.equal(turns.length, units.length);
      for (const turn of turns) assert.ok(turn >= 0 && turn <= 1);
      assert.ok(Math.abs((turns[0] ?? 0) - 1) < 1e-6);
    })
  );
});

test('as many parts as are asked for, where there are as many units', () => {
  fc.assert(
    fc.property(texts, fc.integer({ min: 1, max: 25 }), (units, count) => {
      const { starts } = findParts(units, searchOf(units.length, { count }));
      assert.equal(starts.length, Math.min(count, units.length));
      assert.equal(new Set(starts).size, starts.length);
    })
  );
});

/** The best division, by trying every one. */
function bestByTrial(n: number, score: (starts: readonly number[]) => number): number {
  let best = -Infinity;
  for (let mask = 0; mask < 2 ** (n - 1); mask++) {
    const starts = [0];
    for (let i = 1; i < n; i++) if (mask & (1 << (i - 1))) starts.push(i);
    best = Math.max(best, score(starts));
  }
  return best;
}

test('no other division scores higher, by trying them all', () => {
  const scored = fc.integer({ min: 2, max: 9 }).chain((n) =>
    fc.record({
      begins: fc.array(fc.double({ min: -5, max: 5, noNaN: true }), {
        minLength: n,
        maxLength: n
      }),
      cost: fc.array(fc.double({ min: -5, max: 5, noNaN: true }), {
        minLength: n,
        maxLength: n
      })
    })
  );
  fc.assert(
    fc.property(scored, ({ begins, cost }) => {
      const n = begins.length;
      // Units without words leave beginnings and lengths alone to decide.
      const units = begins.map(() => unit());
      const length = (from: number, to: number) => cost[to - from - 1] ?? 0;
      const score = (starts: readonly number[]) =>
        starts.reduce(
          (sum, start, i) =>
            sum + (start > 0 ? (begins[start] ?? 0) : 0) + length(start, starts[i + 1] ?? n),
          0
        );
      const { starts } = findParts(units, searchOf(n, { begins, length }));
      assert.ok(Math.abs(score(starts) - bestByTrial(n, score)) < 1e-9);
    })
  );
});
