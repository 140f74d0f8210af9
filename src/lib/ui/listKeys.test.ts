import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { rowForKey } from './listKeys.ts';

test('keys lead by one row, by a page and to both ends', () => {
  assert.equal(rowForKey('ArrowDown', 3, 20), 4);
  assert.equal(rowForKey('ArrowUp', 3, 20), 2);
  assert.equal(rowForKey('PageDown', 3, 20), 11);
  assert.equal(rowForKey('PageUp', 11, 20), 3);
  assert.equal(rowForKey('Home', 11, 20), 0);
  assert.equal(rowForKey('End', 11, 20), 19);
});

test('other keys are left alone, and an empty list leads nowhere', () => {
  for (const key of ['a', 'Enter', 'toString', 'ArrowLeft'])
    assert.equal(rowForKey(key, 3, 20), null);
  assert.equal(rowForKey('ArrowDown', 0, 0), null);
});

test('no key leads out of the list', () => {
  const key = fc.constantFrom('ArrowDown', 'ArrowUp', 'PageDown', 'PageUp', 'Home', 'End');
  fc.assert(
    fc.property(key, fc.nat(50), fc.integer({ min: 1, max: 50 }), (pressed, at, count) => {
      const to = rowForKey(pressed, at, count);
      return to !== null && to >= 0 && to < count;
    })
  );
});
