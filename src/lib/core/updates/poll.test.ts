import assert from 'node:assert/strict';
import { test } from 'node:test';
import { textBlocks } from '../markup/textBlocks.ts';
import { proposePolls } from './poll.ts';
import type { UpdateSource } from './source.ts';

const LIMITS = { question: 140, option: 65, most: 5 };
const of = (html: string, language = 'en'): UpdateSource => ({
  title: 'Dressing the loom',
  kind: 'post',
  language,
  link: 'https://notebook.example/a',
  blocks: textBlocks(html)
});

test('polls come from what is compared, chosen between and asked', () => {
  const polls = proposePolls(
    of(`<p>Choose between cotton or linen for the warp. Do you weave every day?</p>
      <ul><li>Use a board: slow.</li><li>Use a mill: quick.</li>
      <li>Take a ready one: dear.</li><li>I never do.</li></ul>`),
    { question: 140, option: 65, most: 5 }
  );
  assert.deepEqual(
    polls.map((p) => p.kind),
    ['compared', 'choice', 'asked']
  );
  assert.deepEqual(polls[0]?.options, ['Use a board', 'Use a mill', 'Take a ready one']);
  assert.deepEqual(polls[1]?.options, ['Cotton', 'Linen']);
  assert.equal(polls[2]?.question, 'Do you weave every day?');
});

const kinds = (source: UpdateSource, limits = LIMITS) =>
  proposePolls(source, limits).map((p) => p.kind);

test('a poll that a place cannot take is not proposed for it', () => {
  const source = of('<p>Choose between cotton or linen for the warp.</p>');
  assert.deepEqual(kinds(source), ['choice']);
  assert.deepEqual(kinds(source, { ...LIMITS, option: 5 }), []);
  assert.deepEqual(kinds(source, { ...LIMITS, question: 40 }), ['choice']);
  assert.deepEqual(kinds(source, { ...LIMITS, question: 10 }), []);
});

test('nothing is asked in a language whose wordings are not known', () => {
  const html = '<p>Choose between cotton or linen for the warp.</p>';
  assert.deepEqual(kinds(of(html, 'fr')), []);
  assert.deepEqual(kinds(of(html, '')), []);
});

test('a text that asks nothing gives no poll, in whatever language', () => {
  assert.deepEqual(kinds(of('<p>Flax flowers in the morning and is done by noon.</p>')), []);
  assert.deepEqual(kinds(of('<p>Die Kette ruht.</p>', 'de-AT')), []);
});
