import assert from 'node:assert/strict';
import { test } from 'node:test';
import { scoreTrees, type Trees } from './trees.ts';

/** Above 5 in the first number, then above 1 in the second; and a tree that is only an end. */
const TREES: Trees = {
  bias: -1,
  roots: [0, 5],
  asks: [0, -1, 1, -1, -1, -1],
  edges: [5, -0.5, 1, 2, 4, 0.25],
  above: [2, 0, 4, 0, 0, 0]
};
const of = (...numbers: number[]) => Float64Array.from(numbers);

test('each tree adds what stands at the end that the numbers lead to', () => {
  assert.equal(scoreTrees(TREES, of(5, 9)), -1 - 0.5 + 0.25);
  assert.equal(scoreTrees(TREES, of(6, 1)), -1 + 2 + 0.25);
  assert.equal(scoreTrees(TREES, of(6, 2)), -1 + 4 + 0.25);
});

test('what is not known is not above anything', () => {
  assert.equal(scoreTrees(TREES, of(NaN, 9)), scoreTrees(TREES, of(0, 0)));
  assert.equal(scoreTrees(TREES, of(9, NaN)), scoreTrees(TREES, of(9, 0)));
});

test('what has fallen below the least is left as it is', () => {
  assert.equal(scoreTrees(TREES, of(0, 0), -1), -1.5);
  assert.equal(scoreTrees(TREES, of(0, 0), -2), -1.25);
  assert.equal(scoreTrees(TREES, of(6, 2), -1), 3.25);
});
