import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { bare } from '../../text/bare.ts';
import { aTalk } from '../../testing.ts';
import { WRITTEN_FOR } from '../../lang/en/speech.ts';
import { writeSentence } from './spoken.ts';

/** The first sentence of a line as it is written, or why it is left out. */
function written(line: string): string {
  const made = writeSentence(aTalk([line]), 0);
  return 'leftOut' in made ? `(${made.leftOut})` : made.words.map((w) => w.text).join(' ');
}

test('what one says to begin or end a sentence is not written', () => {
  assert.equal(
    written('So, basically, the warp goes through the reed first.'),
    'The warp goes through the reed first.'
  );
  assert.equal(
    written('The warp goes through the reed first, you know.'),
    'The warp goes through the reed first.'
  );
  assert.equal(
    written('The reed has eight dents to the inch, doesn’t it?'.replace('’', "'")),
    'The reed has eight dents to the inch.'
  );
});

test('colloquial spellings are written out', () => {
  assert.equal(
    written("We're gonna wind the warp on the board."),
    "We're going to wind the warp on the board."
  );
});

test('what is only speech is left out, and why', () => {
  assert.equal(written('Hello everybody and welcome back to the studio.'), '(greeting)');
  assert.equal(written('Thank you so much for watching, and see you soon.'), '(greeting)');
  assert.equal(written('Please subscribe to the channel if you like it.'), '(call)');
  assert.equal(written('The reed.'), '(fragment)');
  assert.equal(writeSentence(aTalk(['One.']), 7).hasOwnProperty('leftOut'), true);
});

test('a question keeps its mark, and a sentence that is cut gets a stop', () => {
  assert.equal(
    written('How many ends go through each dent of the reed?'),
    'How many ends go through each dent of the reed?'
  );
  assert.match(written('The heddles hold the warp in place, right?'), /place\.$/);
});

test('nothing is written that was not said: each word comes from its place in the talk, in order', () => {
  const words = 'so you know the warp goes like through reed and gonna beam it um I mean well twill'
    .split(' ')
    .map((w) => w.toLowerCase());
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...words), { minLength: 1, maxLength: 14 }), (given) => {
      const talk = aTalk([`${given.join(' ')}.`]);
      talk.sentences.forEach((_, index) => {
        const made = writeSentence(talk, index);
        if ('leftOut' in made) return;
        let last = -1;
        for (const { text, at } of made.words) {
          assert.ok(at > last);
          last = at;
          const said = talk.plain[at] ?? '';
          assert.equal(
            bare(text.split(' ')[0] ?? ''),
            bare((WRITTEN_FOR[said] ?? said).split(' ')[0] ?? '')
          );
        }
        assert.match(made.words.map((w) => w.text).join(' '), /^\P{Ll}.*[.!?…]$/u);
      });
    })
  );
});
