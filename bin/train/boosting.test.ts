import assert from 'node:assert/strict';
import { test } from 'node:test';
import { seeded } from '../../src/lib/core/seeded.ts';
import { scoreTrees } from '../../src/lib/core/text/trees.ts';
import { learnTrees } from './boosting.ts';

const COUNT = 2000;
const chance = seeded(7);
const column = (of: () => number) => Float64Array.from({ length: COUNT }, of);
const random = () => column(() => chance() * 10 - 5);
/** The share of examples that trees put on the right side. */
function rightOf(columns: readonly Float64Array[], targets: Float64Array): number {
  const trees = learnTrees(columns, targets);
  const right = targets.filter((target, i) => {
    const odds = scoreTrees(
      trees,
      Float64Array.from(columns, (own) => own[i]!)
    );
    return odds > 0 === (target === 1);
  });
  return right.length / targets.length;
}

test('what one number means may depend on another', () => {
  const [a, b, noise] = [random(), random(), random()];
  const targets = a.map((x, i) => Number(x > 0 !== b[i]! > 1));
  assert.ok(rightOf([noise, a, b], targets) > 0.98);
});

test('what is not known is told from all that is', () => {
  const known = column(() => (chance() < 0.3 ? NaN : chance() * 10 - 5));
  const targets = known.map((number) => Number(Number.isNaN(number)));
  assert.equal(rightOf([random(), known], targets), 1);
});

test('a value that few have is told', () => {
  const flag = column(() => Number(chance() < 0.05));
  assert.equal(rightOf([random(), flag], flag), 1);
});

test('where nothing tells anything, all is as likely as it is often', () => {
  const targets = Float64Array.from({ length: COUNT }, (_, i) => Number(i % 4 === 0));
  const trees = learnTrees([new Float64Array(COUNT)], targets);
  const odds = scoreTrees(trees, new Float64Array(1));
  assert.ok(Math.abs(odds - Math.log(1 / 3)) < 0.01, String(odds));
});
