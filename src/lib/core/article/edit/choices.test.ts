import assert from 'node:assert/strict';
import { test } from 'node:test';
import { aTalk } from '../../testing.ts';
import type { Article } from '../extract/article.ts';
import { choicesOf, withChoice, type SentenceChoice } from './choices.ts';
import { extractArticle } from '../extract/extract.ts';

const LINES = [
  'Hello everybody and welcome back.',
  'Before you wind the warp, tie the end to the first peg of the board.',
  'The cat was here this morning.',
  'If you leave the cross out, the threads will not come off in their order.',
  'You count the threads twice before you cut them, because a thread too few is a hole in the cloth.',
  'Keep the tension the same from the first thread to the last.'
];
const talk = aTalk(LINES);
const textsOf = (article: Article): string =>
  article.body
    .flatMap((b) => (b.kind === 'paragraph' ? b.sentences : b.kind === 'list' ? b.items : []))
    .map((s) => s.text)
    .join('\n');
const made = (choices: SentenceChoice[]) =>
  extractArticle(talk, { length: 'medium', chapters: [], choices });
const chosen = (index: number, choice: SentenceChoice['choice']) =>
  withChoice([], talk.sentences[index]!, choice);

test('what is dropped is not in the body, and the reason says who dropped it', () => {
  assert.match(textsOf(made([])), /count the threads twice/i);
  const without = made(chosen(4, 'drop'));
  assert.doesNotMatch(textsOf(without), /count the threads twice/i);
  assert.deepEqual(
    without.leftOut.find((l) => l.sentence === 4),
    { sentence: 4, reason: 'dropped-by-hand' }
  );
});

test('what is kept is in the body, even a greeting', () => {
  assert.doesNotMatch(textsOf(made([])), /Hello everybody/);
  const article = made(chosen(0, 'keep'));
  assert.match(textsOf(article), /Hello everybody and welcome back\./);
  assert.ok(!article.leftOut.some((l) => l.sentence === 0));
});

test('of two choices for a sentence the later counts, and none takes them away', () => {
  const [first] = talk.sentences;
  const both = withChoice(chosen(0, 'keep'), first!, 'drop');
  assert.deepEqual([...choicesOf(talk, both)], [[0, 'drop']]);
  assert.deepEqual(withChoice(both, first!, null), []);
});

test('a choice for a second in which nothing is said changes nothing', () => {
  assert.equal(choicesOf(talk, [{ at: 9e9, choice: 'drop' }]).size, 0);
  assert.deepEqual(made([{ at: -1, choice: 'keep' }]), made([]));
});
