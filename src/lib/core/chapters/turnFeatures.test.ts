import assert from 'node:assert/strict';
import { test } from 'node:test';
import { aTalk } from '../testing.ts';
import { pointOf } from './topicSpace.ts';
import { turnFeatures } from './turnFeatures.ts';

const featuresOf = (lines: string[]): string[][] => {
  const talk = aTalk(lines);
  const points = talk.sentences.map(({ from, to }) => pointOf(talk.plain.slice(from, to)));
  return turnFeatures(talk, points);
};
const edge = (features: readonly string[] | undefined, name: string): number =>
  Number(features?.find((f) => f.startsWith(`${name}>`))?.split('>')[1] ?? NaN);

const LINES = [
  'The warping board has pegs for the warp.',
  'Wind the warp around the pegs of the board.',
  'Keep the warp tight on the board.',
  'Okay, so next we fill the indigo vat.',
  'Stir the vat and warm the indigo slowly.',
  'Leave the indigo in the vat to rest.'
];

test('a turn shows in what is said before and from there on', () => {
  const features = featuresOf(LINES);
  assert.ok(edge(features[3], 'shared 2') < edge(features[2], 'shared 2'));
  assert.ok(edge(features[3], 'near 2') < edge(features[2], 'near 2'));
  assert.ok(edge(features[3], 'ended') > edge(features[2], 'ended'));
});

test('words of the sentence, of the one before and of the next are told apart', () => {
  const [, , , turn = []] = featuresOf(LINES);
  for (const feature of [
    'head:okay so',
    'pair:so next',
    'before:tight',
    'before head:keep',
    'ends:the board',
    'next head:stir',
    'signpost>1.7'
  ])
    assert.ok(turn.includes(feature), `${feature} in ${turn.join(', ')}`);
  assert.ok(!turn.includes('word:tight'));
});

test('the first sentence and a lone one have features too', () => {
  assert.equal(featuresOf(['One line alone.']).length, 1);
  assert.deepEqual(featuresOf([]), []);
});
