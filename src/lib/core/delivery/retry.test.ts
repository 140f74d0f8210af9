import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { PlaceError } from '../model/place.ts';
import { isPassing, isUncertain, toProblem, waitAfter } from './retry.ts';

const BACKOFF = { first: 1_000, max: 60_000 };

test('waits grow, stay below their limit, and heed what a place asked for', () => {
  assert.equal(waitAfter(1, BACKOFF, { retryAfter: null }), 1_000);
  assert.equal(waitAfter(3, BACKOFF, { retryAfter: null }), 4_000);
  assert.equal(waitAfter(30, BACKOFF, { retryAfter: null }), 60_000);
  assert.equal(waitAfter(1, BACKOFF, { retryAfter: 90 }), 90_000);
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 40 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (n, chance) => {
        const wait = waitAfter(n, BACKOFF, { retryAfter: null }, chance);
        const whole = waitAfter(n, BACKOFF, { retryAfter: null });
        return wait >= Math.floor(whole / 2) && wait <= whole;
      }
    )
  );
});

test('an answer that is not understood is no passing problem, and neither is a full disk', () => {
  for (const kind of ['not-understood', 'storage', 'internal', 'refused', 'over-quota'] as const)
    assert.ok(!isPassing(kind) && !isUncertain(kind));
  assert.ok(isPassing('busy') && !isUncertain('busy'));
  assert.ok(isPassing('timed-out') && isUncertain('timed-out'));
});

test('errors of the storage of the browser are told from those of a place and from our own', () => {
  const quota = new DOMException('The disk is full.', 'QuotaExceededError');
  assert.equal(toProblem(quota).kind, 'storage');
  assert.equal(toProblem(new TypeError('x is not a function')).kind, 'internal');
  assert.equal(toProblem('odd').detail, 'odd');
  assert.equal(toProblem(new PlaceError({ kind: 'busy', retryAfter: 3 })).retryAfter, 3);
});
