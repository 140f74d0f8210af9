import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { readKeyFacts } from './keyFacts.ts';

test('scopes and the end of a key are read as token introspection tells them', () => {
  assert.deepEqual(
    readKeyFacts({ active: true, scope: 'create  update', exp: 1_795_000_000, me: 'x' }),
    { scope: ['create', 'update'], keyEnds: '2026-11-18T11:06:40.000Z' }
  );
  assert.deepEqual(readKeyFacts({ scope: '' }), { scope: [], keyEnds: null });
});

test('whatever a place answers, it is read without an error', () => {
  fc.assert(
    fc.property(fc.anything(), (body) => {
      const { scope, keyEnds } = readKeyFacts(body);
      assert.ok(scope === null || Array.isArray(scope));
      assert.ok(keyEnds === null || !Number.isNaN(Date.parse(keyEnds)));
    })
  );
  for (const exp of ['soon', -1, 0, 1e300, NaN, null])
    assert.equal(readKeyFacts({ exp }).keyEnds, null, String(exp));
});
