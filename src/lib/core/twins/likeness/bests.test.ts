import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { Bests } from './bests.ts';

test('beside each pair stands the best of the others of its owner', () => {
  const pairs = fc.array(fc.tuple(fc.nat(3), fc.integer({ min: -5, max: 5 })), { maxLength: 12 });
  fc.assert(
    fc.property(pairs, (given) => {
      const worths = Float64Array.from(given, ([, worth]) => worth);
      const owners = Int32Array.from(given, ([owner]) => owner);
      const bests = new Bests(worths, owners, 4);
      for (const [i, [owner]] of given.entries()) {
        const others = given.filter((other, j) => j !== i && other[0] === owner);
        assert.equal(bests.beside(i), Math.max(-Infinity, ...others.map(([, worth]) => worth)));
      }
    })
  );
});
