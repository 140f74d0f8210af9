import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { bare } from '../../text/bare.ts';
import { aTalk } from '../../testing.ts';
import { splitRunOns } from './runOns.ts';

const wordsOf = (line: string) => {
  const talk = aTalk([line]);
  return { talk, words: talk.words.map(({ text }, at) => ({ text, at })) };
};
const split = (line: string): string => {
  const { talk, words } = wordsOf(line);
  return splitRunOns(talk, words)
    .map((w) => w.text)
    .join(' ');
};

test('a run-on ends where a clause of its own begins, and only what joined them goes', () => {
  assert.equal(
    split(
      'I had four hundred passwords in an old browser, and you export those to a file, and then you bring the file in at the other end.'
    ),
    'I had four hundred passwords in an old browser. You export those to a file. Then you bring the file in at the other end.'
  );
  assert.equal(
    split(
      'This here is a new board and this is a dead one, but I put a bit of tape on it, so nobody is going to get confused halfway through.'
    ).includes('. But I put'),
    true
  );
});

test('what depends on another clause is left with it', () => {
  for (const line of [
    'If you have cold hands and the wire is stiff in the morning, you end up swearing at it, whatever anybody told you before.',
    'It was the board that I bought last year at the market, and it never worked as well as the old one did.',
    'You press it down, and it holds.'
  ])
    assert.equal(split(line), line);
});

test('nothing is said that was not said, and nothing else goes', () => {
  const clause = fc.constantFrom(
    'I wind the warp on the board',
    'it goes back in the box',
    'when you lift it',
    'the reed has sixty dents',
    'so you need a lighter',
    'then she was paying the minimum'
  );
  const joint = fc.constantFrom(', and ', ', ', ' and ', ', and so ', ', but ', ', and then ');
  fc.assert(
    fc.property(fc.array(fc.tuple(clause, joint), { minLength: 1, maxLength: 7 }), (parts) => {
      const line = `${parts.map(([c, j], i) => (i < parts.length - 1 ? c + j : c)).join('')}.`;
      const { talk, words } = wordsOf(line);
      const kept = splitRunOns(talk, words);
      const ats = kept.map((w) => w.at);
      assert.deepEqual(
        ats,
        [...ats].sort((a, b) => a - b)
      );
      for (const { text, at } of kept) assert.equal(bare(text), bare(words[at]?.text ?? ''));
      for (const [at, { text }] of words.entries())
        if (!ats.includes(at)) assert.match(bare(text), /^(?:and|then|so)$/);
    })
  );
});
