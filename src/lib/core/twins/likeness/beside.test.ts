import assert from 'node:assert/strict';
import { test } from 'node:test';
import { anItem } from '../../testing.ts';
import { BESIDE_WIDTH, Besides } from './beside.ts';
import type { Compared } from './compared.ts';
import { corpusOf } from './corpus.ts';
import type { Likeness } from './likeness.ts';
import { PAIR_MODEL } from './pairModel.ts';
import { aPair } from './testing.ts';

const pairOf = (video: number, post: number, likeness: Partial<Likeness>) =>
  aPair(video, post, { likeness });

const three = (kind: 'video' | 'post') =>
  ['a', 'b', 'c'].map((id) => ({ item: anItem({ id: `${kind}-${id}`, kind }), text: '' }));
const corpus = corpusOf(three('video'), three('post'));

/** All numbers of each pair. */
function read(all: readonly Compared[]): Float64Array[] {
  const besides = new Besides(all, corpus);
  return all.map((_, at) => {
    const numbers = new Float64Array(BESIDE_WIDTH).fill(-99);
    besides.read(at, numbers);
    return numbers;
  });
}
/** Of one pair: a number that it has, and the two that tell how much more it has than others. */
function respect(numbers: Float64Array, own: number): number[] | undefined {
  const at = numbers.findLastIndex((number) => Object.is(number, own));
  return at < 0 ? undefined : [...numbers.slice(at + 1, at + 3)];
}

test('each respect is told against the best of the same video, and of the same post', () => {
  const [pair, ofVideo, ofPost] = read([
    pairOf(0, 0, { texts: 0.625 }),
    pairOf(0, 1, { texts: 0.5 }),
    pairOf(1, 0, { texts: 0.875 })
  ]);
  assert.deepEqual(respect(pair!, 0.625), [0.125, -0.25]);
  // Where there is no other, it is told against less than any likeness.
  assert.deepEqual(respect(ofVideo!, 0.5), [-0.125, 1.5]);
  assert.deepEqual(respect(ofPost!, 0.875), [1.875, 0.25]);
});

test('what is not known stays so, and is less than what others have', () => {
  const [pair, other] = read([
    pairOf(0, 0, { texts: NaN, titles: 0.25 }),
    pairOf(0, 1, { texts: 0.5 })
  ]);
  assert.deepEqual(respect(other!, 0.5), [1.5, 1.5]);
  assert.equal(respect(pair!, NaN)?.[0], -1.5);
});

test('every place is told', () => {
  const [numbers] = read([pairOf(0, 0, {})]);
  assert.ok(numbers!.every((number) => number !== -99));
});

test('what was learned asks for nothing that is not told', () => {
  const { asks, above, edges, roots } = PAIR_MODEL.beside;
  assert.ok(roots.length > 0);
  assert.equal(asks.length, above.length);
  assert.equal(asks.length, edges.length);
  for (const [node, asked] of asks.entries()) {
    assert.ok(asked < BESIDE_WIDTH);
    // Trees are walked downwards, and so to an end.
    if (asked >= 0) assert.ok(above[node]! > node + 1 && above[node]! < asks.length);
  }
});
