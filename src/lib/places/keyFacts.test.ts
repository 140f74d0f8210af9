import assert from 'node:assert/strict';
import { test } from 'node:test';
import { PlaceError } from '$lib/core/model/place.ts';
import { readKeyFacts } from './keyFacts.ts';

const URL = 'https://blog.example/token';

test('scopes and the end of a key are read as token introspection has them', () => {
  assert.deepEqual(
    readKeyFacts({ active: true, scope: 'create  update', exp: 1_795_000_000, me: 'x' }, URL),
    { scope: ['create', 'update'], keyEnds: new Date(1_795_000_000_000).toISOString() }
  );
  assert.deepEqual(readKeyFacts({ scope: '' }, URL), { scope: [], keyEnds: null });
});

test('what is not said is null', () => {
  assert.deepEqual(readKeyFacts({}, URL), { scope: null, keyEnds: null });
  assert.deepEqual(readKeyFacts({ scope: null, exp: null }, URL), { scope: null, keyEnds: null });
});

test('an answer that is none grants nothing: it is a problem of the place', () => {
  for (const body of [
    null,
    'text',
    7,
    [],
    { scope: 7 },
    { exp: 'soon' },
    { exp: -1 },
    { exp: 1e99 }
  ])
    assert.throws(
      () => readKeyFacts(body, URL),
      (error) =>
        error instanceof PlaceError &&
        error.problem.kind === 'not-understood' &&
        error.problem.url === URL,
      JSON.stringify(body)
    );
});
