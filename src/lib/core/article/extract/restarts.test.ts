import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { aTalk } from '../../testing.ts';
import { withoutRestarts } from './restarts.ts';

function mended(line: string): string {
  const talk = aTalk([line]);
  const words = talk.words.map(({ text }, at) => ({ text, at }));
  return withoutRestarts(talk, words)
    .map((w) => w.text)
    .join(' ');
}

test('a thought that begins again is written as it was said last', () => {
  assert.equal(mended("It's on the, it's in the menu."), "it's in the menu.");
  assert.equal(mended("So we're, I'm putting it down here."), "I'm putting it down here.");
  assert.equal(mended('You lift it, you lift the whole beam.'), 'you lift the whole beam.');
  assert.equal(mended('Beat it with a, with a fork.'), 'Beat it with a fork.');
  assert.equal(mended('The reed... the comb is steel.'), 'the comb is steel.');
});

test('a list, a contrast and a pair of clauses are no restarts', () => {
  for (const line of [
    'Take the red one, the blue one and the grey one.',
    'It is warm, but it is wet.',
    'When you lift it, you lift the whole beam with it.',
    'Not the warp, the weft.',
    'This is for you, and that is for me.'
  ])
    assert.equal(mended(line), line);
});

test('words are only taken away, never moved nor added', () => {
  const word = fc.constantFrom(
    'the',
    'it',
    'a,',
    'warp',
    'and,',
    'we',
    "we're,",
    'tie',
    'on...',
    'to'
  );
  fc.assert(
    fc.property(fc.array(word, { minLength: 1, maxLength: 16 }), (words) => {
      const kept = mended(words.join(' ')).split(' ');
      let at = 0;
      for (const text of kept.filter(Boolean)) {
        while (at < words.length && words[at] !== text) at++;
        assert.ok(at++ < words.length, kept.join(' '));
      }
      assert.equal(kept.at(-1), words.at(-1));
    })
  );
});
