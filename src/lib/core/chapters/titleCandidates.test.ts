import assert from 'node:assert/strict';
import { test } from 'node:test';
import { aTalk } from '../testing.ts';
import { shownTitle, titleCandidates } from './titleCandidates.ts';

const shown = (line: string): string[] => {
  const talk = aTalk([line, 'That is what we are going to talk about in this video today.']);
  return titleCandidates(talk, 0, 1).map((c) => shownTitle(talk, c));
};

test('an act with its object, also with a particle', () => {
  assert.ok(shown('First you cut out the old seat.').includes('Cut out the old seat'));
  assert.ok(shown('Wind the warp around the pegs.').includes('Wind the warp'));
});

test('a thing, without the article that only a sentence needs', () => {
  assert.ok(shown('This is a warping board.').includes('Warping board'));
});

test('a short question stands by itself, unless it points at something', () => {
  assert.ok(shown('So why do threads break?').includes('Why do threads break?'));
  assert.ok(!shown('Why does this break?').some((title) => title.endsWith('?')));
});

test('no fragment, no filler, nothing over a comma', () => {
  for (const title of shown("It's the, you know, and the board of the maker's shed thing."))
    assert.doesNotMatch(title, /^And |thing|'s$|,/i);
});
