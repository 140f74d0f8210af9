import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { aTalk } from '../testing.ts';
import { talkParagraphs } from './paragraphs.ts';

const texts = (talk: ReturnType<typeof aTalk>) => talk.sentences.map((s) => s.text);

test('sentences by their punctuation, over cues and abbreviations', () => {
  assert.deepEqual(
    texts(
      aTalk([
        'Dr. Marsh winds the',
        'warp. It takes e.g. one hour! Does',
        'it? Yes, about 2.5 hours.'
      ])
    ),
    ['Dr. Marsh winds the warp.', 'It takes e.g. one hour!', 'Does it?', 'Yes, about 2.5 hours.']
  );
});

test('a full stop of a word ends a sentence only where the next word begins one', () => {
  assert.deepEqual(
    texts(
      aTalk([
        'The U.S. mill sent it at 5 p.m. sharp. It came from the U.S. Then we',
        'wound wool, silk, etc. So it goes. Is it loose? No. Take No. 5',
        'by J. Wren and so do I. We are done.'
      ])
    ),
    [
      'The U.S. mill sent it at 5 p.m. sharp.',
      'It came from the U.S.',
      'Then we wound wool, silk, etc.',
      'So it goes.',
      'Is it loose?',
      'No.',
      'Take No. 5 by J. Wren and so do I.',
      'We are done.'
    ]
  );
});

test('where there are no stops, ends, capitals and marks are restored', () => {
  const talk = aTalk([
    'welcome to the studio today we are going to wind a warp on the board',
    'you need a board and some yarn and i like to have a pair of scissors',
    'what is a warp it is a set of threads that are all the same length',
    'now take the yarn and tie it to the first peg then walk it down the board'
  ]);
  assert.ok(talk.isRestored);
  const shown = texts(talk);
  assert.ok(shown.length >= 4, shown.join(' | '));
  for (const sentence of shown) assert.match(sentence, /^\p{Lu}.*[.?]$/u);
  assert.match(shown.join(' '), / I like /);
});

test('a pause ends a sentence in any language', () => {
  const talk = aTalk(
    [
      'heute bäumen wir eine kette auf und das machen wir ganz in ruhe',
      'dann legen wir das papier ein und drehen den baum'
    ],
    { gap: 2 }
  );
  assert.equal(talk.language.code, 'de');
  assert.equal(talk.sentences.length, 2);
});

test('scripts without spaces have sentences too', () => {
  assert.deepEqual(texts(aTalk(['今日は縦糸を', '巻きます。それから結びます。', '終わり。'])), [
    '今日は縦糸を巻きます。',
    'それから結びます。',
    '終わり。'
  ]);
});

test('shouted captions are written as usual', () => {
  const talk = aTalk([
    'WELCOME TO THE STUDIO TODAY WE WIND A WARP',
    'AND THEN WE TIE IT IN FOUR PLACES WITH COTTON'
  ]);
  assert.match(texts(talk).join(' '), /^Welcome to the studio/);
});

test('sentences cover all words, in order', () => {
  const word = fc.constantFrom(
    'warp',
    'the',
    'tie',
    'now',
    'I',
    'e.g.',
    'done.',
    'why?',
    'Dr.',
    '...'
  );
  fc.assert(
    fc.property(
      fc.array(fc.array(word, { minLength: 1, maxLength: 9 }), { minLength: 1, maxLength: 9 }),
      (rows) => {
        const talk = aTalk(rows.map((r) => r.join(' ')));
        let next = 0;
        for (const { from, to, start, end } of talk.sentences) {
          assert.equal(from, next);
          assert.ok(to > from && end >= start);
          next = to;
        }
        assert.equal(next, talk.words.length);
      }
    ),
    { numRuns: 60 }
  );
});

test('paragraphs break at chapters and long silences, and hold every sentence', () => {
  const talk = aTalk(['One is here. Two is here.', 'Three is here. Four is here.'], { gap: 6 });
  assert.deepEqual(
    talkParagraphs(talk).map((p) => p.text),
    ['One is here. Two is here.', 'Three is here. Four is here.']
  );
  const at = talk.sentences[1]?.start ?? 0;
  assert.deepEqual(
    talkParagraphs(talk, [0, at]).map((p) => [p.from, p.to]),
    [
      [0, 1],
      [1, 2],
      [2, 4]
    ]
  );
});
