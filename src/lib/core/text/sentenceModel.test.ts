import assert from 'node:assert/strict';
import { test } from 'node:test';
import { encode, jointUnits, logOdds, readBothWays, scoreJoints, SHAPE } from './sentenceModel.ts';
import { assemble, PARTS, sentenceWeights, type Part } from './weights.ts';

const words = 'now take the yarn and tie the yarn to the first peg then wind the warp'.split(' ');

test('a word that comes again is looked up once, and is the same word', () => {
  const { first, common } = encode(words);
  const yarns = words.flatMap((word, i) => (word === 'yarn' ? [i] : []));
  assert.deepEqual(
    yarns.map((i) => first[i]),
    [yarns[0], yarns[0]]
  );
  assert.equal(common[yarns[1]!], common[yarns[0]!]);
  assert.ok(common[words.indexOf('the')]! >= 0);
});

test('what was computed for a word serves again without changing what comes out', () => {
  const weights = sentenceWeights();
  const odds = scoreJoints(words, weights);
  // The same, with every word looked up by itself.
  const text = encode(words);
  for (let i = 0; i < words.length; i++) {
    const from = text.first[i]!;
    const row = text.vectors.slice(from * SHAPE.vector, (from + 1) * SHAPE.vector);
    text.vectors.set(row, i * SHAPE.vector);
    text.first[i] = i;
  }
  const pass = readBothWays(text, weights);
  const units = new Float64Array(SHAPE.joint);
  for (let i = 0; i < words.length; i++) {
    jointUnits(pass, i, weights, units);
    assert.ok(Math.abs(odds.end[i]! - logOdds(text, i, weights, units, 0)) < 1e-5);
    assert.ok(Math.abs(odds.comma[i]! - logOdds(text, i, weights, units, 1)) < 1e-5);
  }
});

test('without weights every joint is judged by the bias alone', () => {
  const parts = Object.fromEntries(
    Object.entries(PARTS).map(([name, size]) => [name, new Float64Array(size)])
  ) as Record<Part, Float64Array>;
  parts.out.set([1.5, -2], 2 * SHAPE.joint);
  const odds = scoreJoints(words, assemble(parts));
  assert.deepEqual([...odds.end], Array<number>(words.length).fill(1.5));
  assert.deepEqual([...odds.comma], Array<number>(words.length).fill(-2));
});

test('a text of no words and of one have as many joints', () => {
  for (const some of [[], ['warp']])
    assert.equal(scoreJoints(some, sentenceWeights()).end.length, some.length);
});
