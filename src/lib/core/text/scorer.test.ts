import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { binNames, binOf, binned, chance, score } from './scorer.ts';

test('log-odds of features add up, and what is not known counts nothing', () => {
  const scorer = { bias: -1, weights: { warm: 0.5, cold: -2 } };
  assert.equal(score(scorer, ['warm', 'warm', 'unheard of']), 0);
  assert.equal(score(scorer, ['cold']), -3);
  assert.equal(score(scorer, []), -1);
});

test('a feature may be called like anything that every object has', () => {
  assert.equal(score({ bias: 0, weights: {} }, ['constructor', '__proto__', 'toString']), 0);
});

test('a value falls into the bin of the highest edge that it is above', () => {
  assert.equal(binned('long', 7, [3, 6, 9]), 'long>6');
  assert.equal(binned('long', 6, [3, 6, 9]), 'long>3');
  assert.equal(binned('long', 0, [3, 6, 9]), 'long>');
});

test('bins that are written once are those of each value', () => {
  const edges = [3, 6, 9];
  const names = binNames('long', edges);
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 12 }), (value) =>
      assert.equal(names[binOf(value, edges)], binned('long', value, edges))
    )
  );
});

test('a chance is between nothing and certain, and rises with the log-odds', () => {
  assert.equal(chance(0), 0.5);
  fc.assert(
    fc.property(fc.double({ min: -30, max: 30, noNaN: true }), (x) => {
      assert.ok(chance(x) > 0 && chance(x) <= 1);
      assert.ok(chance(x) <= chance(x + 1));
      assert.ok(Math.abs(chance(x) + chance(-x) - 1) < 1e-9);
    })
  );
});
