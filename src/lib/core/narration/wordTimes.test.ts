import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { normalizeForSpeech } from './normalization/normalize.ts';
import { wordTimes } from './wordTimes.ts';

const line = (text: string, spoken: string) => ({ id: 'a', text, spoken, source: null });

test('words that are said as they are written have the times of the voice', () => {
  const said = { seconds: 3, words: [0.1, 0.5, 1, 2] };
  assert.deepEqual(
    wordTimes(line('Wind the warp, slowly.', 'Wind the warp, slowly.'), said),
    said.words
  );
});

test('a number begins with the first word that it is said with', () => {
  const spoken = 'We wind two hundred and forty ends.';
  const said = { seconds: 4, words: [0, 0.3, 0.8, 1.2, 1.6, 2, 3] };
  assert.deepEqual(wordTimes(line('We wind 240 ends.', spoken), said), [0, 0.3, 0.8, 3]);
});

test('without the times of the voice, words come by their lengths', () => {
  const times = wordTimes(line('a threading hook', 'a threading hook'), {
    seconds: 3.2,
    words: []
  });
  assert.equal(times[0], 0);
  assert.ok(times[1]! < 0.8 && times[2]! > 2);
});

test('whatever is written and said: a time for each word, rising, within the line', () => {
  const word = fc.constantFrom('240', 'wind', 'the', '12.5', 'cm,', 'warp.', '—', 'e.g.', '3/4');
  fc.assert(
    fc.property(
      fc.array(word, { maxLength: 20 }),
      fc.double({ min: 0.1, max: 30, noNaN: true }),
      (words, seconds) => {
        const text = words.join(' ');
        const spoken = normalizeForSpeech(text, 'en');
        const times = wordTimes(line(text, spoken), { seconds, words: [] });
        assert.equal(times.length, words.length);
        for (const [i, t] of times.entries())
          assert.ok(t >= (times[i - 1] ?? 0) && t <= seconds && Number.isFinite(t));
      }
    )
  );
});
