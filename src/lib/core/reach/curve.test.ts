import assert from 'node:assert/strict';
import test from 'node:test';
import fc from 'fast-check';
import {
  fallsOf,
  gainsByDay,
  gainsOfReading,
  totalOn,
  withGains,
  withReading,
  type Curve
} from './curve.ts';

const curveOf = (readings: readonly [number, number][]): Curve | undefined =>
  readings.reduce<Curve | undefined>(
    (curve, [on, total]) => withReading(curve, on, total),
    undefined
  );

test('a total that stays the same is kept at both ends of the time', () => {
  const curve = curveOf([
    [10, 5],
    [11, 5],
    [12, 5],
    [15, 9],
    [15, 12]
  ])!;
  assert.deepEqual(curve, { days: [10, 12, 15], totals: [5, 5, 12], until: 15 });
  // Read on the twelfth and on the fifteenth: nobody knows on which day between it grew.
  assert.deepEqual(
    [...gainsByDay(curve)],
    [
      [13, 2],
      [14, 3],
      [15, 2]
    ]
  );
  assert.equal(totalOn(curve, 11), 5);
  assert.equal(totalOn(curve, 9), null);
  assert.equal(totalOn(curve, 40), 12);
});

test('a counter that falls is told', () => {
  const curve = curveOf([
    [1, 100],
    [2, 80],
    [3, 90]
  ])!;
  assert.deepEqual(fallsOf(curve), [{ on: 2, from: 100, to: 80 }]);
  assert.equal(gainsByDay(curve).get(2), -20);
});

test('what was there at the first reading counts only of what has just come out', () => {
  const curve = curveOf([[20, 60]])!;
  assert.deepEqual(
    [...gainsByDay(curve, 18)].map(([, gained]) => gained),
    [20, 20, 20]
  );
  assert.equal(gainsByDay(curve, 2).size, 0);
});

const readings = fc
  .array(fc.tuple(fc.nat(3), fc.nat(500)), { minLength: 1, maxLength: 30 })
  .map((steps) => {
    let on = 100;
    return steps.map(([days, total]): [number, number] => [(on += days), total]);
  });

test('whenever readings come, their gains add up to the last total', () => {
  fc.assert(
    fc.property(readings, (all) => {
      const curve = curveOf(all)!;
      const gains = [...gainsByDay(curve).values()].reduce((sum, n) => sum + n, 0);
      assert.equal(gains, all.at(-1)![1] - (curve.totals[0] ?? 0));
      for (const [on, total] of new Map(all)) assert.equal(totalOn(curve, on), total);
    })
  );
});

test('gains told reading by reading are those of the whole curve', () => {
  fc.assert(
    fc.property(readings, fc.option(fc.integer({ min: 90, max: 100 })), (all, published) => {
      let curve: Curve | undefined;
      const told = new Map<number, number>();
      // A second reading of a day takes the place of the first: it adds what came since.
      for (const [on, total] of all) {
        for (const [day, gained] of gainsOfReading(curve, on, total, published))
          told.set(day, (told.get(day) ?? 0) + gained);
        curve = withReading(curve, on, total);
      }
      const sum = (gains: Map<number, number>) => [...gains.values()].reduce((a, b) => a + b, 0);
      const isCounted = published !== null && all[0]![0] - published <= 7;
      const firstOfDay = all[0]![1];
      assert.equal(sum(told), all.at(-1)![1] - (isCounted ? 0 : firstOfDay));
    })
  );
});

test('what a service exports by day leads up to what was read', () => {
  const read = curveOf([
    [10, 100],
    [12, 120]
  ]);
  const { curve, known } = withGains(read, [
    { day: 9, gained: 30 },
    { day: 8, gained: 10 },
    { day: 11, gained: 8 }
  ]);
  assert.deepEqual(curve.days, [8, 9, 10, 12]);
  assert.deepEqual(curve.totals, [70, 100, 100, 120]);
  assert.equal(known, 1);
  assert.deepEqual(
    withGains(undefined, [
      { day: 3, gained: 4 },
      { day: 5, gained: 6 }
    ]).curve,
    {
      days: [3, 5],
      totals: [4, 10],
      until: 5
    }
  );
});
