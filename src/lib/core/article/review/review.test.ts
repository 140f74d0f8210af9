import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { markdownPost } from '../../markup/markdownPost.ts';
import { MarkdownError } from '../../markup/markdown.ts';
import { phraseStandings, rangeFrom } from './phrases.ts';
import { reviewText } from './review.ts';
import { sentencesIn } from '../../text/sentencesIn.ts';
import { textBlocks } from '../../markup/textBlocks.ts';

const paragraphs = (...texts: string[]) =>
  texts.map((text) => ({ kind: 'paragraph' as const, text }));
const kinds = (...texts: string[]) => reviewText(paragraphs(...texts)).findings.map((f) => f.kind);

test('a plain text has nothing that stands out', () => {
  assert.deepEqual(
    kinds('Wind the warp on the board. Tie the cross in four places.', 'Then chain it off.'),
    []
  );
});

test('a word and a phrase said too often point at their places, but not when they are the subject', () => {
  const text =
    'The gorgeous cloth is gorgeous. We saw a gorgeous loom, and a gorgeous hem at the end of the row.';
  const word = reviewText(paragraphs(text)).findings.find((f) => f.kind === 'word-often');
  assert.equal(word?.kind === 'word-often' && word.word, 'gorgeous');
  assert.deepEqual(
    word?.spots.map((s) => text.slice(s.from, s.to)),
    Array(4).fill('gorgeous')
  );
  assert.deepEqual(reviewText(paragraphs(text), ['gorgeous']).findings, []);
  assert.deepEqual(
    kinds('It sits at the end of the loom. Go to the end of the loom. See the end of the loom.'),
    ['phrase-often']
  );
});

test('openings alike, long sentences and wordiness', () => {
  assert.deepEqual(kinds('You can tie it now. You can cut it off. You can wash it well.'), [
    'sentences-open-alike'
  ]);
  assert.deepEqual(kinds('When you weave, sit up.', 'When you weave, stop often.'), [
    'paragraphs-open-alike'
  ]);
  assert.deepEqual(
    kinds(`${'One more thread and '.repeat(9)}stop.`).includes('sentence-long'),
    true
  );
  const [finding] = reviewText(paragraphs('Tie it in order to keep it.')).findings;
  assert.deepEqual(finding, {
    kind: 'wordy',
    phrase: 'in order to',
    instead: 'to',
    spots: [{ block: 0, from: 7, to: 18 }]
  });
});

test('reading ease follows the published formulas', () => {
  // 10 sentences of 8 words of one syllable each: 206.835 - 1.015 * 8 - 84.6 and 0.39 * 8 + 11.8 - 15.59.
  const { ease, grade } = reviewText(paragraphs('The cat sat on the mat and slept. '.repeat(10)));
  assert.equal(ease, 114.1);
  assert.equal(grade, -0.7);
  assert.equal(reviewText(paragraphs('Too short to tell.')).ease, null);
});

test('sentences are found with their places, and no text is lost between them', () => {
  const text = 'Sett is 8.5 ends. “Is it?” she said. Yes…';
  assert.deepEqual(
    sentencesIn(text).map((s) => s.text),
    ['Sett is 8.5 ends.', '“Is it?” she said.', 'Yes…']
  );
  fc.assert(
    fc.property(fc.string({ unit: fc.constantFrom('a', 'B', '.', ' ', '?', '1', '”') }), (any) => {
      let last = 0;
      for (const s of sentencesIn(any)) {
        assert.equal(any.slice(s.from, s.to), s.text);
        assert.doesNotMatch(any.slice(last, s.from), /[aB1]/);
        last = s.to;
      }
      assert.doesNotMatch(any.slice(last), /[aB1]/);
    })
  );
});

test('HTML is read block by block, with its seconds; what is folded away is left out', () => {
  assert.deepEqual(
    textBlocks(
      '<h2>Why</h2><p data-start="1.5" data-end="3">One <b>two</b><br>three</p><ol><li><p>Step</p></li></ol><img src="x" alt="Loom"><details><summary>Transcript</summary><p>All</p></details><blockquote><p>Said</p></blockquote>'
    ),
    [
      { kind: 'heading', text: 'Why' },
      { kind: 'paragraph', text: 'One two three', start: 1.5, end: 3 },
      { kind: 'item', text: 'Step', step: 1 },
      { kind: 'picture', text: 'Loom' },
      { kind: 'quote', text: 'Said' }
    ]
  );
});

test('steps of numbered lists are counted, also around lists within them', () => {
  const html =
    '<ol><li>One<ul><li>Aside</li></ul></li><li><p>Two</p><p>More</p></li></ol><p>End</p>';
  assert.deepEqual(
    textBlocks(html).map((b) => [b.text, b.step]),
    [
      ['One', 1],
      ['Aside', undefined],
      ['Two', 2],
      ['More', undefined],
      ['End', undefined]
    ]
  );
});

test('where a phrase stands, in any of its forms, and how well', () => {
  const blocks = [
    { kind: 'heading' as const, text: 'Threading heddles' },
    ...paragraphs(`We thread a heddle. ${'The warp lies flat on the loom. '.repeat(20)}`)
  ];
  const [standing] = phraseStandings(['threading a heddle'], 'Threading a heddle', blocks);
  assert.deepEqual(standing?.counts, { title: 1, opening: 1, headings: 0, pictures: 0, body: 1 });
  assert.ok((standing?.score ?? 0) >= 65 && (standing?.score ?? 0) < 85);
  const page = (n: number) =>
    `${'a heddle is here and so is some more text to read '.repeat(n)}${'the warp lies flat '.repeat(30)}`;
  const range = rangeFrom('heddle', [page(1), page(5)]);
  assert.ok(range.least > 5 && range.most < 35 && range.least < range.most);
  assert.equal(phraseStandings(['  '], 'x', blocks)[0]?.score, 0);
});

test('Markdown blocks know their line and column', () => {
  const source =
    '---\ntitle: Warps\n---\n\nFirst *line* is here,\nand in order to see.\n\n- item in order to try\n';
  const post = markdownPost(source);
  assert.equal(post.title, 'Warps');
  const points = reviewText(post.blocks).findings.flatMap((f) =>
    f.kind === 'wordy' ? f.spots.map((s) => post.pointOf(s.block, s.from)) : []
  );
  assert.deepEqual(points, [
    { line: 6, column: 5 },
    { line: 8, column: 8 }
  ]);
});

test('front matter that cannot be read is reported with its line', () => {
  assert.throws(
    () => markdownPost('---\ntitle: [a\n---\nx'),
    (e) => e instanceof MarkdownError && e.line >= 2
  );
  assert.throws(() => markdownPost('---\n- a\n---\nx'), MarkdownError);
  const post = markdownPost(
    '# A title\n\n<iframe src="https://x.example"></iframe>\n\n![](p.png) [l](https://a.example)'
  );
  assert.deepEqual(
    [post.title, post.hasEmbed, post.links, post.picturesWithoutText],
    ['A title', true, 1, [{ line: 5, column: 1 }]]
  );
});
