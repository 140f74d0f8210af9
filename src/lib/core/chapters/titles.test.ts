import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { aTalk } from '../testing.ts';
import { titleParts, titlePhrases } from './titles.ts';

const WARPING = [
  'First we wind the warp on the warping board.',
  'The warping board has pegs, and the warp goes around them.',
  'Keep the cross of the warp in order on the warping board.'
];
const DYEING = [
  'Now we fill the indigo vat with warm water.',
  'The indigo vat needs lime, and the lime needs time.',
  'Stir the indigo vat slowly, and leave the indigo to rest.'
];
const talk = aTalk([...WARPING, ...DYEING]);
const firstDye = talk.sentences.findIndex((s) => talk.plain.slice(s.from, s.to).includes('indigo'));

test('a part is called by what it alone is about', () => {
  const titles = titleParts(talk, [0, firstDye]);
  assert.equal(titles.length, 2);
  assert.match(titles[0] ?? '', /warp/i);
  assert.doesNotMatch(titles[0] ?? '', /indigo/i);
  assert.match(titles[1] ?? '', /indigo|vat/i);
  assert.doesNotMatch(titles[1] ?? '', /warp/i);
});

test('a title has two to six words of the speaker, and begins with a capital', () => {
  const said = new Set(talk.plain);
  for (const title of titleParts(talk, [0, firstDye])) {
    const words = title.split(' ');
    assert.ok(words.length >= 2 && words.length <= 6, title);
    assert.match(title, /^\p{Lu}/u);
    for (const word of words) assert.ok(said.has(word.toLowerCase()), word);
  }
});

test('parts that say the same are told apart', () => {
  const same = aTalk([...WARPING, ...WARPING]);
  const titles = titleParts(same, [0, same.sentences.length / 2]);
  assert.equal(new Set(titles).size, 2);
});

test('phrases of a talk: what it is about, and none inside another', () => {
  const phrases = titlePhrases(talk, 4);
  assert.ok(phrases.length >= 2 && phrases.length <= 4);
  assert.match(phrases.join('\n'), /warping board/i);
  assert.match(phrases.join('\n'), /indigo vat/i);
  for (const a of phrases)
    for (const b of phrases)
      if (a !== b)
        assert.ok(!` ${a} `.toLowerCase().includes(` ${b} `.toLowerCase()), `${a}: ${b}`);
});

test('every part gets a title of its own, whatever is said', () => {
  const words = ['warp', 'the', 'a', 'um', 'board', 'you', 'wind', '42', 'é', 'indigo', 'and'];
  const line = fc
    .array(fc.constantFrom(...words), { minLength: 3, maxLength: 9 })
    .map((some) => `${some.join(' ')}.`);
  fc.assert(
    fc.property(fc.array(line, { minLength: 2, maxLength: 8 }), (lines) => {
      const random = aTalk(lines);
      const starts = random.sentences.map((_, i) => i).filter((i) => i % 2 === 0);
      const titles = titleParts(random, starts);
      assert.equal(titles.length, starts.length);
      assert.equal(new Set(titles).size, titles.length);
    }),
    { numRuns: 60 }
  );
});
