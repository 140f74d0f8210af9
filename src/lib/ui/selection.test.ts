import assert from 'node:assert/strict';
import test from 'node:test';
import { withRange, withToggled } from './selection.ts';

const ids = ['a', 'b', 'c', 'd', 'e'];

test('a range goes from where it began to the row, in either direction, and adds to what is selected', () => {
  assert.deepEqual([...withRange(new Set(['e']), ids, 1, 3)].sort(), ['b', 'c', 'd', 'e']);
  assert.deepEqual([...withRange(new Set(), ids, 3, 1)], ['b', 'c', 'd']);
  assert.deepEqual([...withRange(new Set(), ids, 2, 2)], ['c']);
});

test('a row is selected, and is not when it is toggled again', () => {
  const one = withToggled(new Set(), 'a');
  assert.deepEqual([...one], ['a']);
  assert.deepEqual([...withToggled(one, 'a')], []);
});
