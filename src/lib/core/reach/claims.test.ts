import assert from 'node:assert/strict';
import test from 'node:test';
import { seeded } from '../seeded.ts';
import { claimsOf, type Judged } from './claims.ts';
import { compareWithUsual, isBetterThanUsual, wasNeverFound, type Aged } from './usual.ts';

/** A number of the standard normal distribution (Box and Muller). */
const normal = (next: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());

/** Items that lie around nothing, but for those of one weekday. */
function judged(seed: number, count: number, effect: number): Judged[] {
  const next = seeded(seed);
  return Array.from({ length: count }, (_, i) => {
    const weekday = String(i % 7);
    const score = 0.6 * normal(next) + (weekday === '2' ? effect : 0);
    return { score, groups: { weekday } };
  });
}
const weekdays = (items: readonly Judged[]) =>
  claimsOf(items).find(({ dimension }) => dimension === 'weekday')!.groups;

test('where weekdays do not differ, hardly ever one is said to', () => {
  let wrong = 0;
  for (let seed = 1; seed <= 300; seed++)
    if (weekdays(judged(seed, 70, 0)).some((group) => group.isClear)) wrong++;
  assert.ok(wrong <= 30, `${wrong} of 300 catalogues have a weekday that is none`);
});

test('a weekday with two thirds more is mostly found in a catalogue of two hundred', () => {
  let found = 0;
  let inBounds = 0;
  for (let seed = 1; seed <= 100; seed++) {
    const best = weekdays(judged(seed, 210, Math.log(5 / 3)))[0]!;
    if (best.group === '2' && best.isClear) found++;
    // Its distance from the mean of all, of which it is one seventh.
    const truth = Math.exp((Math.log(5 / 3) * 6) / 7) - 1;
    if (best.low <= truth && truth <= best.high) inBounds++;
  }
  assert.ok(found >= 75, `found in ${found} of 100`);
  assert.ok(inBounds >= 75, `within its bounds in ${inBounds} of 100`);
});

test('of a few items nothing is said, and a group with few is left out', () => {
  assert.deepEqual(weekdays(judged(1, 11, 2)), []);
  const items = judged(1, 70, 0).concat({ score: 9, groups: { weekday: 'odd' } });
  assert.ok(weekdays(items).every(({ group, items: count }) => group !== 'odd' && count >= 5));
  assert.deepEqual(weekdays(Array.from({ length: 40 }, () => ({ score: 1, groups: {} }))), []);
});

test('items are held against those of their age', () => {
  const next = seeded(5);
  const items: Aged[] = Array.from({ length: 60 }, (_, i) => ({
    id: String(i),
    age: 1 + i * 6,
    // Old ones have more, and that is usual.
    total: Math.round(400 * Math.log2(1 + i * 6) * (0.8 + 0.4 * next())),
    group: 'video'
  }));
  items[3]!.total *= 5;
  items[50]!.total = 3;
  const compared = compareWithUsual(items);
  const better = items.filter(({ id }) => isBetterThanUsual(compared.get(id)!));
  assert.deepEqual(
    better.map(({ id }) => id),
    ['3']
  );
  const lost = items.filter(({ id, age }) => wasNeverFound(compared.get(id)!, age));
  assert.deepEqual(
    lost.map(({ id }) => id),
    ['50']
  );
  assert.equal(compareWithUsual(items.slice(0, 7)).size, 0);
});
