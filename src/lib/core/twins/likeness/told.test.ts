import assert from 'node:assert/strict';
import { test } from 'node:test';
import { anItem } from '../../testing.ts';
import { tellItem, Terms } from './told.ts';

const LONG =
  'The warp of madder wool lies on the beam, and each thread goes through a heddle and the reed.';

function tell(title: string, text: string, more: Parameters<typeof anItem>[0] | object = {}) {
  const terms = new Terms();
  const item = anItem({ id: 'v', kind: 'video', title, ...more });
  const told = tellItem({ item, text }, 'en', terms, 20_000);
  const words = (ids: readonly number[]) => ids.map((id) => terms.words[id]!);
  return { told, terms, words };
}

test('names are words with a capital that do not only begin a sentence, and those of a title', () => {
  const { told, words } = tell(
    'Dyeing with Orla',
    'Madder is red. We met Isolde at the mill. Then we left.'
  );
  assert.deepEqual(words(told.names).sort(), ['@dyeing', '@isolde', '@orla']);
});

test('a figure is the same number however it is written', () => {
  for (const [written, figure] of [
    ['1,200 metres', '=1200'],
    ['1.200 metres', '=1200'],
    ['1200 metres', '=1200'],
    ['1,5 grams', '=1.5'],
    ['1.5 grams', '=1.5']
  ] as const) {
    const { told, words } = tell('Yarn', written);
    assert.deepEqual(words(told.figures), [figure], written);
  }
});

test('a word of the title is not one of the text; what is said often counts more, and once only', () => {
  const { told, words } = tell('Madder', `Madder and wool, wool, wool and flax. ${LONG}`);
  assert.ok(!words(told.text).includes(words(told.title)[0]!));
  const countOf = (stem: string) => told.often[words(told.text).indexOf(stem)];
  assert.equal(countOf('flax'), 1);
  assert.equal(countOf('wool'), 1 + Math.log(4));
  assert.deepEqual(
    [...told.text],
    [...new Set(told.text)].sort((a, b) => a - b)
  );
});

test('no more of a text is read than is asked for', () => {
  const terms = new Terms();
  const item = anItem({ id: 'v', kind: 'video', title: 'Yarn' });
  const told = tellItem({ item, text: 'flax wool silk' }, 'en', terms, 9);
  assert.deepEqual(told.text.map((id) => terms.shown(id)).sort(), ['flax', 'wool']);
});

test('a minute at most is a clip, a sentence is no text yet, and what has no date has no day', () => {
  assert.equal(tell('A', LONG, { duration: 60 }).told.isClip, true);
  assert.equal(tell('A', LONG, { duration: 61 }).told.isClip, false);
  assert.equal(tell('A', LONG, { duration: null }).told.isClip, false);
  assert.equal(tell('A', 'Wool on a beam.').told.hasText, false);
  assert.equal(tell('A', LONG).told.hasText, true);
  assert.equal(tell('A', LONG, { published: null }).told.day, null);
  assert.equal(tell('A', LONG, { published: '1970-01-03T12:00:00Z' }).told.day, 2.5);
});
