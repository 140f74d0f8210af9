import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { laneModel } from './laneModel.testing.ts';

/** Runs one world and says how to run it again. */
async function holds(seed: number, items: number, faults: number): Promise<void> {
  const wrong = await laneModel({ seed, items, faults });
  assert.deepEqual(
    wrong,
    [],
    `Run it again with laneModel({ seed: ${seed}, items: ${items}, faults: ${faults} })`
  );
}

test('in random worlds each item stands once, none is lost, and the pace is kept', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.integer({ min: 0, max: 2 ** 31 }),
      fc.integer({ min: 1, max: 14 }),
      fc.double({ min: 0, max: 0.8, noNaN: true }),
      holds
    ),
    { numRuns: 60, seed: 20261125 }
  );
});

test('a hundred items at thirty faults in a hundred', { timeout: 120_000 }, async () => {
  await holds(7, 100, 0.3);
});
