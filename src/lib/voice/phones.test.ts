import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { readPhones, soundsByWord, wordStarts } from './phones.ts';

test('sounds and their ends are read; words said one by one are told apart by their pauses', () => {
  const phones = readPhones(
    'pau:0.200 w:0.300 iy:0.400 pau:0.600 w:0.700 ay:0.800 n:0.900 d:1.000 pau:1.100'
  );
  assert.equal(phones.length, 9);
  assert.deepEqual(soundsByWord(phones), [
    ['w', 'iy'],
    ['w', 'ay', 'n', 'd']
  ]);
});

test('sounds that change where words meet do not lead to another word', () => {
  const phones = readPhones('pau:0.2 dh:0.3 iy:0.4 ao:0.6 r:0.7 z:0.8 pau:1.0 g:1.1 ow:1.2');
  const starts = wordStarts(phones, [
    ['dh', 'ax'],
    ['ao', 'r', 's'],
    ['g', 'ow']
  ]);
  assert.deepEqual(starts, [0.2, 0.4, 1]);
});

test('whatever was said: a time for each word, rising; exact where the sounds are the same', () => {
  const word = fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { minLength: 1, maxLength: 4 });
  fc.assert(
    fc.property(fc.array(word, { minLength: 1, maxLength: 8 }), fc.nat(2), (words, changed) => {
      let at = 0;
      const exact: number[] = [];
      const phones = words.flatMap((sounds, w) =>
        sounds.map((name, i) => {
          if (i === 0) exact.push(at);
          at += 0.1;
          const other = changed > 0 && (w + i) % 5 === 0 ? 'z' : name;
          return { name: other, end: at };
        })
      );
      const starts = wordStarts(phones, words);
      assert.equal(starts.length, words.length);
      assert.ok(starts.every((t, i) => t >= (starts[i - 1] ?? 0) && t <= at));
      if (changed === 0) assert.deepEqual(starts, exact);
    })
  );
});
