import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { markdownPost } from '../markup/markdownPost.ts';
import { textBlocks } from '../markup/textBlocks.ts';
import { graphemesOf } from './limits.ts';
import { numbersIn, otherNumbers, valueOf } from './numbers.ts';
import { proposePolls } from './poll.ts';
import { proposeQuiz } from './quiz.ts';
import type { UpdateSource } from './source.ts';

const LIMITS = { question: 300, option: 65, most: 4 };
const of = (html: string, language = 'en', title = 'Dressing the loom'): UpdateSource => ({
  title,
  kind: 'post',
  language,
  link: 'https://notebook.example/a',
  blocks: textBlocks(html)
});
const rightOf = (q: { options: { text: string; right: boolean }[] }) =>
  q.options.filter((o) => o.right).map((o) => o.text);

test('amounts are found as they are written; years, times, dates and names are none', () => {
  const found = (text: string) => numbersIn(text).map((n) => n.value);
  assert.deepEqual(found('It takes 1,200 grams and 3.5 hours for twelve towels.'), [1200, 3.5, 12]);
  assert.deepEqual(found('In 1998, at 10:30, on 3/4, version 2.1.3 of step-3 and 8/2 cotton.'), []);
  assert.deepEqual(found('twenty-four or seventy'), [70]);
  for (const value of [2, 13, 20, 70]) {
    const [number] = numbersIn(
      `with ${['two', 'thirteen', 'twenty', 'seventy'][[2, 13, 20, 70].indexOf(value)]} ends`
    );
    assert.equal(number?.value, value);
  }
});

test('other numbers are of the size of the right one and written alike', () => {
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 90_000 }), fc.string(), (value, seed) => {
      const [number] = numbersIn(`It takes ${value.toLocaleString('en')} ends.`);
      if (!number) return;
      const others = otherNumbers(number, 3, new Set([value]), Infinity, seed);
      assert.equal(new Set(others).size, others.length);
      for (const other of others) {
        assert.notEqual(valueOf(other), value);
        assert.ok(valueOf(other) >= value / 3 - 2 && valueOf(other) <= value * 2 + 3, other);
      }
    })
  );
});

test('a number of the text is asked for, with its sentence as the reason', () => {
  const { questions } = proposeQuiz(
    of('<p>The warp of a towel needs 240 ends of cotton.</p><p>It took 12 days.</p>'),
    LIMITS
  );
  assert.equal(questions.length, 1);
  const [question] = questions;
  assert.match(question!.question, /needs ____ ends/);
  assert.deepEqual(rightOf(question!), ['240']);
  assert.equal(question!.options.length, 4);
  assert.equal(question!.why, 'The warp of a towel needs 240 ends of cotton.');
  assert.deepEqual(question!.from, { block: 0, from: 0 });
});

test('a term that is explained is asked for among terms of its kind', () => {
  const { questions } = proposeQuiz(
    of(`<p>A heddle is a loop through which one thread goes. The reed spaces the threads. A shuttle
      carries the weft, and the shuttle is held in the hand. The reed hangs in the beater, and the
      beater swings.</p>`),
    LIMITS
  );
  const term = questions.find((q) => q.kind === 'term');
  assert.match(term!.question, /“A\(n\) ____ is a loop/);
  assert.deepEqual(rightOf(term!), ['heddle']);
  assert.ok(!term!.options.some((o) => /thread|loop/.test(o.text)));
});

test('the step after another is asked for in numbered lists only', () => {
  const steps = [
    'Wind the warp',
    'Spread it in the raddle',
    'Beam it',
    'Thread the heddles',
    'Sley the reed'
  ];
  const list = (tag: string) =>
    `<${tag}>${steps.map((s) => `<li><p>${s}.</p></li>`).join('')}</${tag}>`;
  const { questions } = proposeQuiz(of(list('ol')), LIMITS);
  assert.ok(questions.length >= 4);
  for (const { question, options } of questions) {
    const at = steps.findIndex((s) => question.includes(s));
    assert.deepEqual(
      rightOf({ options }).map((r) => r.replace(/\.$/, '')),
      [steps[at + 1]]
    );
    assert.ok(!options.some((o) => o.text.startsWith(steps[at]!)));
  }
  assert.equal(proposeQuiz(of(list('ul')), LIMITS).none, 'nothing-stated');
  const markdown = markdownPost(steps.map((s, i) => `${i + 1}. ${s}.`).join('\n'));
  assert.deepEqual(
    markdown.blocks.map((b) => b.step),
    [1, 2, 3, 4, 5]
  );
});

test('where nothing can be asked, it is said why', () => {
  assert.equal(proposeQuiz(of('<p>We went for a walk.</p>'), LIMITS).none, 'nothing-stated');
  assert.equal(proposeQuiz(of('<p>Die Kette hat 240 Fäden.</p>', 'de'), LIMITS).none, 'language');
  const long = `<p>The warp of a towel needs 240 ends of ${'very '.repeat(4)}good cotton.</p>`;
  assert.equal(proposeQuiz(of(long), { ...LIMITS, question: 30 }).none, 'too-long');
  assert.equal(proposeQuiz(of('<p>You would need 3 hands, say.</p>'), LIMITS).none, 'too-unsure');
});

test('whatever the text, one option is right, all are distinct and within the limits', () => {
  const words =
    'the a warp reed threads heddle is are takes 12 240 four twenty because it loom of and grams hours . , ! ?'.split(
      ' '
    );
  const paragraph = fc.array(fc.constantFrom(...words), { maxLength: 60 }).map((w) => w.join(' '));
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom('paragraph', 'item', 'heading'), paragraph), {
        maxLength: 8
      }),
      fc.record({
        question: fc.integer({ min: 20, max: 300 }),
        option: fc.integer({ min: 2, max: 65 }),
        most: fc.integer({ min: 2, max: 5 })
      }),
      (parts, limits) => {
        const blocks = parts.map(([kind, text], i) => ({
          kind: kind as 'item',
          text,
          ...(kind === 'item' ? { step: i + 1 } : {})
        }));
        const source = { ...of(''), blocks };
        for (const q of proposeQuiz(source, limits).questions) {
          assert.equal(rightOf(q).length, 1);
          assert.equal(new Set(q.options.map((o) => o.text.toLowerCase())).size, q.options.length);
          assert.ok(graphemesOf(q.question).length <= limits.question);
          assert.ok(q.options.every((o) => graphemesOf(o.text).length <= limits.option));
          assert.ok(blocks[q.from.block] && q.score >= 0.6 && q.score <= 1);
        }
        for (const poll of proposePolls(source, limits)) {
          assert.ok(poll.options.length >= 2 && poll.options.length <= limits.most);
          assert.equal(new Set(poll.options.map((o) => o.toLowerCase())).size, poll.options.length);
          assert.ok(graphemesOf(poll.question).length <= limits.question);
        }
      }
    ),
    { numRuns: 150 }
  );
});

test('what is denied is no question of a number, since it holds for others too', () => {
  const blocks = [
    'The table loom in the studio has eight shafts.',
    'A draft of eight rows will not go on four shafts.',
    'The long warp takes twelve hours to thread.'
  ].map((text) => ({ kind: 'paragraph' as const, text }));
  const { questions } = proposeQuiz(
    { title: 'Looms', kind: 'post', link: '', language: 'en', blocks },
    { question: 300, option: 65, most: 4 }
  );
  assert.ok(questions.length > 0);
  for (const { question } of questions) assert.doesNotMatch(question, /will not go/);
});
