import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { aTalk } from '../../testing.ts';
import { subjectOf } from './candidate.ts';
import { judgeByTerms, judgeSentences, type Judge } from './judge.ts';

const LINES = [
  'Hello everybody, hang on, is this thing on?',
  'Today I want to show you how to wind a warp that does not tangle.',
  'Before you start, tie the end to the first peg, because if it slips the whole warp is short.',
  'If you leave the cross out, then the threads will not come off in order.',
  'Wait, sorry, that was the cat.',
  'Always count the threads twice, I take forty for a scarf and eighty for a shawl.',
  'So, yeah.',
  'You want to keep the tension the same, so do not pull at the corners.',
  'Okay.',
  'Thank you for watching, bye, bye.'
];
const talk = aTalk(LINES);
const judgements = judgeSentences(talk, subjectOf(talk));
const of = (line: number) => judgements[line] ?? assert.fail();

test('advice with its reason must be there sooner than greetings, asides and goodbyes', () => {
  for (const told of [2, 3, 5, 7])
    for (const chatter of [0, 4, 6, 8, 9]) {
      assert.ok(of(told).must > of(chatter).must, `${LINES[told]} / ${LINES[chatter]}`);
      assert.ok(of(told).mustNot < of(chatter).mustNot, `${LINES[told]} / ${LINES[chatter]}`);
    }
});

test('a judge that knows nothing tells every sentence alike', () => {
  const alone = { bias: 0, weights: {} };
  const judge: Judge = {
    alone: { must: alone, mustNot: alone, takeaway: alone },
    together: { must: [0], mustNot: [0], takeaway: [0] }
  };
  for (const { must, mustNot, takeaway } of judgeSentences(talk, [], judge))
    assert.deepEqual([must, mustNot, takeaway], [0.5, 0.5, 0.5]);
});

test('in a language without a judge, what says more of the subject is more telling', () => {
  const german = aTalk([
    'Die Kette wird auf dem Kettbaum gewickelt und durch den Kamm gezogen.',
    'Ach ja.',
    'Der Kettbaum hält die Kette unter gleicher Spannung am Kamm.'
  ]);
  const [first, second] = judgeByTerms(german, ['kett', 'kettbaum', 'kamm']);
  assert.ok((first?.must ?? 0) > (second?.must ?? 1));
});

test('whatever is said, each sentence is judged by chances', () => {
  const word = fc.constantFrom('so', 'the', 'warp', 'tie', '40', 'why?', 'um.', 'because', 'ñandú');
  fc.assert(
    fc.property(
      fc.array(fc.array(word, { minLength: 1, maxLength: 12 }), { minLength: 1, maxLength: 12 }),
      (lines) => {
        const any = aTalk(lines.map((l) => `${l.join(' ')}.`));
        const found = judgeSentences(any, subjectOf(any));
        assert.equal(found.length, any.sentences.length);
        for (const { must, mustNot, takeaway } of found)
          for (const x of [must, mustNot, takeaway]) assert.ok(x >= 0 && x <= 1);
      }
    ),
    { numRuns: 50 }
  );
});
