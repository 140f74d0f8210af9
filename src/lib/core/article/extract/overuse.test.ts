import assert from 'node:assert/strict';
import { test } from 'node:test';
import { aCandidate, aTalk } from '../../testing.ts';
import type { Candidate } from './candidate.ts';
import { withoutOveruse } from './overuse.ts';
import type { LeftOutReason } from './written.ts';

const ABOUT = ['warp', 'thread', 'reed', 'beam', 'heddl', 'cross', 'loom', 'weav'];

/** Sentences as they were chosen for an article, the first the least telling. */
function chosen(lines: string[]): { talk: ReturnType<typeof aTalk>; candidates: Candidate[] } {
  const candidates = lines.map((line, index) =>
    aCandidate({
      index,
      words: line.split(' ').map((text) => ({ text, at: index })),
      must: index / lines.length
    })
  );
  return { talk: aTalk(lines), candidates };
}
const textOf = (candidates: readonly Candidate[]): string =>
  candidates.map((c) => c.words.map((w) => w.text).join(' ')).join('\n');
/** Counted here from the text alone, not by the code under test. */
const uses = (text: string, word: string): number =>
  text.match(new RegExp(`\\b${word}\\b`, 'gi'))?.length ?? 0;

const LINES = [
  'The warp is really tight on the beam today.',
  'You really want to check the cross before the reed.',
  'Each thread really goes through a heddle of its own.',
  'I really like the way the reed holds it.',
  'It really helps when the loom stands level.',
  'The beam really turns only when you let it.',
  'A short warp really needs no paper between.',
  'Weave an inch and the threads settle by themselves.'
];

test('an adverb that is said in every sentence is taken out until it is rare, and nothing else is', () => {
  const { talk, candidates } = chosen(LINES);
  assert.equal(uses(textOf(candidates), 'really'), 7);
  const leftOut = new Map<number, LeftOutReason>();
  const text = textOf(withoutOveruse(talk, candidates, ABOUT, leftOut));
  assert.ok(uses(text, 'really') < 4, text);
  assert.equal(text, textOf(candidates).replaceAll(' really', ''));
  assert.equal(leftOut.size, 0);
});

test('for a word that cannot be taken out alone, the least telling sentences go, with their reason', () => {
  const lines = LINES.map((line, i) =>
    i < 6
      ? line.replace(' really', '').replace('.', ' in the corner.')
      : line.replace(' really', '')
  );
  const { talk, candidates } = chosen(lines);
  const leftOut = new Map<number, LeftOutReason>();
  const kept = withoutOveruse(talk, candidates, ABOUT, leftOut);
  assert.ok(uses(textOf(kept), 'corner') < 4, textOf(kept));
  assert.deepEqual(
    [...leftOut],
    [
      [0, 'repeats'],
      [1, 'repeats'],
      [2, 'repeats']
    ]
  );
});

test('what the talk is about may be said as often as it must, and so may turns of speech', () => {
  const lines = LINES.map((line) => line.replace(' really', '').replace('.', ' of the warp.'));
  for (const some of [lines, LINES.map((line) => line.replace(' really', ' going to'))]) {
    const { talk, candidates } = chosen(some);
    const kept = withoutOveruse(talk, candidates, ABOUT, new Map());
    assert.equal(textOf(kept), textOf(candidates));
  }
});
