import assert from 'node:assert/strict';
import { test } from 'node:test';
import { hasFormOfQuestion } from '../lang/en/questions.ts';
import { detectLanguage, languageOf } from './language.ts';
import { contentStems, wordsOf } from './terms.ts';
import { rankOf, usualRate } from './vectors.ts';

test('languages are told apart by a few sentences', () => {
  const texts = {
    en: 'Today we are going to wind a warp on the board, and then we tie it.',
    de: 'Heute bäumen wir eine Kette auf, ganz in Ruhe und ohne dass jemand daran zieht.',
    fr: 'Nous allons ourdir une chaîne sur le cadre, puis nous la lions en quatre endroits.',
    es: 'Hoy vamos a urdir una tela en el tablero y después la atamos con cuidado.',
    ja: '今日は縦糸を巻きます。それから結びます。'
  };
  for (const [code, text] of Object.entries(texts)) assert.equal(detectLanguage(text), code);
  assert.equal(detectLanguage('Hm.'), 'und');
});

test('small words carry no topic; stems join the forms of a word', () => {
  const stems = contentStems(
    wordsOf('The threads and a thread’s end: we threaded them.'),
    languageOf('en')
  );
  assert.deepEqual(stems, ['thread', 'thread', 'end', 'thread']);
  const german = contentStems(wordsOf('Die Fäden und der Faden'), languageOf('de-AT'));
  assert.equal(german.length, 2);
  assert.deepEqual(contentStems(wordsOf('縦糸を巻きます'), languageOf('ja')).includes('を'), false);
});

test('questions are known by their words', () => {
  for (const yes of [
    'what about the reed',
    'do you tie it twice',
    'it holds doesn’t it'.replace('’', "'")
  ])
    assert.ok(hasFormOfQuestion(yes), yes);
  for (const no of ['what you need is a board', 'when you wind it tie it', 'we tie it'])
    assert.equal(hasFormOfQuestion(no), false, no);
});

test('common words have their usual rate', () => {
  assert.equal(rankOf('the'), 0);
  assert.ok(usualRate('the') > usualRate('loom') && usualRate('loom') > usualRate('xyzzyx'));
});
