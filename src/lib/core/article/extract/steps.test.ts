import assert from 'node:assert/strict';
import { test } from 'node:test';
import { aCandidate, aTalk } from '../../testing.ts';
import { extractArticle } from './extract.ts';
import { proceduresOf } from './steps.ts';

const STEPS = [
  'Take the warp from the board.',
  'Tie the cross with a strong thread.',
  'Lay the loop over the back beam.',
  'Wind the beam with paper between the layers.'
];
const TALK = [
  'Today we talk about beaming a warp for a table loom.',
  'My aunt had a table loom that nobody in the village could use.',
  'The warp must be under tension the whole time, or the layers sink into each other.',
  ...STEPS,
  'That warp was the first that I ever sold at the market in the town.',
  'The tension is what makes the cloth even from edge to edge.'
];

test('steps in a row are one procedure, with at most one sentence between two', () => {
  const talk = aTalk(TALK);
  const candidates = talk.sentences.map(({ from, to }, index) =>
    aCandidate({
      index,
      words: talk.words.slice(from, to).map(({ text }, k) => ({ text, at: from + k }))
    })
  );
  const procedures = proceduresOf(talk, candidates);
  assert.deepEqual(
    [...procedures.keys()].map((c) => c.index),
    [3, 4, 5, 6]
  );
  const without = candidates.filter((c) => c.index !== 4 && c.index !== 5);
  assert.equal(proceduresOf(talk, without).size, 0);
});

test('a procedure comes whole and in order or not at all, whatever length is asked for', () => {
  const talk = aTalk(TALK);
  for (let length = 5; length <= 100; length += 5) {
    const { body } = extractArticle(talk, { length, chapters: [] });
    const said = body.flatMap((b) =>
      b.kind === 'list' ? b.items : b.kind === 'paragraph' ? b.sentences : []
    );
    const steps = said.filter((s) => s.from >= 3 && s.from <= 6).map((s) => s.from);
    assert.ok(steps.length === 0 || steps.join() === '3,4,5,6', `${length} %: ${steps.join()}`);
  }
});
