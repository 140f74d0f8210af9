import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { eachWord, Units } from './units.ts';

const ofTexts = new Units();
function wordsOf(text: string): { word: string; isHead: boolean }[] {
  const words: { word: string; isHead: boolean }[] = [];
  eachWord(ofTexts.of(text), text.length, (from, end, isHead) =>
    words.push({ word: text.slice(from, end), isHead })
  );
  return words;
}
const shown = (text: string) => wordsOf(text).map(({ word }) => word);
const heads = (text: string) => wordsOf(text).flatMap(({ word, isHead }) => (isHead ? [word] : []));

test('words end at what is no letter, and keep what joins their parts', () => {
  assert.deepEqual(shown("The loom's 4.50-metre warp, again. It’s wide…"), [
    'The',
    "loom's",
    '4.50-metre',
    'warp',
    'again',
    'It’s',
    'wide'
  ]);
  assert.deepEqual(shown('-a- .b. 𝄞𝄞 é e\u0301'), ['a', 'b', '𝄞𝄞', 'é', 'e\u0301']);
});

test('the first word of a sentence is told from the others', () => {
  assert.deepEqual(heads('Wind the warp. Then count: Twenty! And on\nGo, Juna'), [
    'Wind',
    'Then',
    'Twenty',
    'And',
    'Go'
  ]);
});

test('where no spaces part words, letters are taken two by two', () => {
  assert.deepEqual(shown('織機の糸 A4 木。'), ['織機', '機の', 'の糸', 'A4', '木']);
  assert.deepEqual(heads('織機。糸'), ['織機', '糸']);
});

test('a text is read by itself, whatever was read before', () =>
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), fc.string({ unit: 'binary' }), (before, text) => {
      const alone = shown(text);
      ofTexts.of(`${before}${'x'.repeat(text.length)}`);
      assert.deepEqual(shown(text), alone);
      let at = 0;
      for (const word of alone) {
        at = text.indexOf(word, Math.max(0, at - 1));
        assert.ok(at >= 0, word);
      }
    })
  ));
