import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Compared } from './compared.ts';
import { noLikeness } from './likeness.ts';
import { findRivals } from './rivals.ts';
import { aPair } from './testing.ts';

const pairOf = (video: number, post: number, alone: number, given: Partial<Compared> = {}) =>
  aPair(video, post, { alone, ...given });
const daysBetween = (days: number) => ({ likeness: { ...noLikeness(), days } });

function found(all: Compared[]): Compared[] {
  const count = (of: (pair: Compared) => number) => Math.max(0, ...all.map((p) => of(p) + 1));
  findRivals(all, { video: count((p) => p.video), post: count((p) => p.post) });
  return all;
}

test('the rivals of a pair are the next best of its video and of its post', () => {
  const [pair, ofVideo, ofPost] = found([pairOf(0, 0, 5), pairOf(0, 1, 2), pairOf(1, 0, 3)]);
  assert.deepEqual([pair?.ofVideo, pair?.ofPost], [2, 3]);
  assert.deepEqual([ofVideo?.ofVideo, ofVideo?.ofPost], [5, -Infinity]);
  assert.deepEqual([ofPost?.ofVideo, ofPost?.ofPost], [-Infinity, 5]);
});

test('a rival that belongs to somebody else hardly counts', () => {
  const [pair] = found([pairOf(0, 0, 5), pairOf(0, 1, 4.5), pairOf(1, 1, 9)]);
  assert.equal(pair?.ofVideo, 4.5);
  assert.ok(pair.freeOfVideo < -4, String(pair.freeOfVideo));
});

test('a clip is no rival of the video that it was taken from', () => {
  const [pair, clip] = found([pairOf(0, 0, 5), pairOf(1, 0, 6, { isClip: true })]);
  assert.ok(pair!.ofPost < 0, String(pair!.ofPost));
  assert.deepEqual([clip?.ofPost, clip?.isOfAnother], [5, true]);
});

test('a short video that no other is like is none', () => {
  const [short, other] = found([pairOf(0, 0, 9, { isClip: true }), pairOf(1, 0, 1)]);
  assert.deepEqual([short?.isOfAnother, other?.ofPost], [false, 9]);
  const channel = found([0, 1].map((post) => pairOf(0, post, 3 * post, { isClip: true })));
  assert.deepEqual(
    channel.map(({ isOfAnother, ofVideo }) => [isOfAnother, ofVideo]),
    [
      [false, 3],
      [false, 0]
    ]
  );
});

test('what was published next to each other is told', () => {
  const all = found([
    pairOf(0, 0, 1, daysBetween(3)),
    pairOf(0, 1, 1, daysBetween(-2)),
    pairOf(1, 1, 1, daysBetween(1)),
    pairOf(2, 2, 1)
  ]);
  assert.deepEqual(
    all.map(({ near }) => near),
    // What has no date is as near as all else that has none.
    ['post', 'video', 'both', 'both']
  );
});

test('a rival is never worth more for what its other half could have instead', () => {
  const worths = fc.array(fc.tuple(fc.nat(4), fc.nat(4), fc.integer({ min: -30, max: 30 })), {
    maxLength: 14
  });
  fc.assert(
    fc.property(worths, (pairs) => {
      for (const pair of found(pairs.map((given) => pairOf(...given)))) {
        assert.ok(pair.freeOfVideo <= pair.ofVideo);
        assert.ok(pair.freeOfPost <= pair.ofPost);
      }
    })
  );
});
