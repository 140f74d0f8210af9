import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { changedFields, reconcile } from './fields.ts';

const known = { title: 'Twill', tags: ['loom'], on: false };

test('only what differs is a change, whatever the order of its keys', () => {
  const from = { style: { x: 1, y: 2 }, title: 'Twill' };
  assert.deepEqual(changedFields(from, { style: { y: 2, x: 1 }, title: 'Satin' }), {
    title: 'Satin'
  });
});

test('a change there is taken, a change here stays, and what both changed clashes', () => {
  const here = { ...known, title: 'My twill', on: true };
  const stored = { ...known, title: 'Their twill', tags: ['loom', 'reed'] };
  const { kept, taken, clashing } = reconcile(known, here, stored);
  assert.deepEqual(kept, { title: 'Their twill', tags: ['loom', 'reed'], on: true });
  assert.deepEqual(taken, { tags: ['loom', 'reed'] });
  assert.deepEqual(clashing, { title: 'Their twill' });
});

test('the same change on both sides is no clash; what is not kept there was not changed', () => {
  const here = { ...known, title: 'Satin', on: true };
  assert.deepEqual(reconcile(known, here, { title: 'Satin' }), {
    kept: here,
    taken: {},
    clashing: {}
  });
});

const fields = fc.record({ a: fc.nat(3), b: fc.nat(3), c: fc.array(fc.nat(2), { maxLength: 2 }) });

test('no change of either side is lost without a word', () => {
  fc.assert(
    fc.property(fields, fields, fields, (known, here, stored) => {
      const { kept, clashing } = reconcile(known, here, stored);
      const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
      for (const name of ['a', 'b', 'c'] as const) {
        if (!same(stored[name], known[name])) assert.deepEqual(kept[name], stored[name]);
        const isLost = !same(here[name], known[name]) && !same(kept[name], here[name]);
        assert.equal(name in clashing, isLost);
      }
    })
  );
});
