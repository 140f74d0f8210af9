import assert from 'node:assert/strict';
import test from 'node:test';
import fc from 'fast-check';
import { htmlText } from '../../text/html.ts';
import { changesIn, mergeHtml, takeChanges, type Change } from './mergeHtml.ts';
import { piecesOf } from './pieces.ts';

const all = () => 'fresh' as const;
const none = () => 'mine' as const;
const free = (change: Change) => (change.isConflict ? 'mine' : 'fresh');
const keysOf = (html: string) => piecesOf(html).pieces.map((piece) => piece.key);

const made = [
  '<p>Wool takes dye well. Linen takes less of it. Cotton is in between.</p>',
  '<h2>The warp</h2>',
  '<p>Wind the warp with an even hand. Count the ends twice.</p>',
  '<ul><li>Sort the yarn</li><li>Wind it</li></ul>'
].join('\n');

test('an edit by hand and a change of what is made go together within a paragraph', () => {
  const mine = made.replace('Linen takes less', 'In my studio, linen takes far less');
  const fresh = made.replace('Cotton is in between', 'Cotton stands in between');
  const merged = mergeHtml(made, mine, fresh);
  assert.deepEqual(changesIn(merged), [
    {
      base: 'Cotton is in between.',
      mine: 'Cotton is in between.',
      fresh: 'Cotton stands in between.',
      isConflict: false
    }
  ]);
  const taken = takeChanges(merged, all);
  assert.ok(taken.includes('In my studio, linen takes far less'));
  assert.ok(taken.includes('Cotton stands in between.'));
});

test('a sentence that both sides changed is a conflict, with all three versions', () => {
  const mine = made.replace('Count the ends twice.', 'Count the ends three times.');
  const fresh = made.replace('Count the ends twice.', 'Count all the ends twice.');
  const merged = mergeHtml(made, mine, fresh);
  assert.deepEqual(changesIn(merged), [
    {
      base: 'Count the ends twice.',
      mine: 'Count the ends three times.',
      fresh: 'Count all the ends twice.',
      isConflict: true
    }
  ]);
  assert.equal(takeChanges(merged, free), mine);
  assert.ok(
    takeChanges(merged, () => 'both').includes(
      'Count the ends three times. Count all the ends twice.'
    )
  );
});

test('a paragraph that would come again, though it was deleted by hand, is a conflict', () => {
  const mine = made.replace(/<p>Wind.*?<\/p>\n/, '');
  const fresh = made.replace('Count the ends twice.', 'Count them again.');
  const [change] = changesIn(mergeHtml(made, mine, fresh));
  assert.equal(change?.isConflict, true);
  assert.equal(change.mine, '');
});

test('a paragraph that would go, though it was edited by hand, is a conflict', () => {
  const mine = made.replace('Count the ends twice.', 'Count the ends twice, aloud.');
  const fresh = made.replace(/<p>Wind.*?<\/p>\n/, '');
  const [change] = changesIn(mergeHtml(made, mine, fresh));
  assert.equal(change?.isConflict, true);
  assert.ok(change.mine.includes('aloud'));
});

test('items of a list are merged one by one', () => {
  const mine = made.replace('<li>Sort the yarn</li>', '<li>Sort the yarn by colour</li>');
  const fresh = made.replace('<li>Wind it</li>', '<li>Wind it</li><li>Chain it</li>');
  const taken = takeChanges(mergeHtml(made, mine, fresh), free);
  assert.ok(taken.includes('<li>Sort the yarn by colour</li><li>Wind it</li>'), taken);
  assert.ok(taken.includes('<li>Chain it</li>'), taken);
});

test('how a blog writes the same makes no difference', () => {
  const mine = made
    .replaceAll('<p>', '<p class="wide">\n  ')
    .replaceAll('<h2>', '<h2 id="h">')
    .replace('takes dye well', 'takes <span>dye</span> well');
  const fresh = made.replace('Linen takes less of it.', 'Linen takes little of it.');
  const merged = mergeHtml(made, mine, fresh);
  assert.deepEqual(
    changesIn(merged).map(({ isConflict }) => isConflict),
    [false]
  );
  assert.ok(takeChanges(merged, free).includes('<h2 id="h">The warp</h2>'));
});

test('a mark of origin and comments at the blog stay where they are', () => {
  const mark = '<data class="swift-twin-origin" value="k"></data>';
  const mine = `${made.replace('<h2>', '<!--more-->\n<h2>')}\n${mark}`;
  const fresh = `${made}\n<p>One paragraph more.</p>\n${mark}`;
  const taken = takeChanges(mergeHtml(`${made}\n${mark}`, mine, fresh), free);
  assert.ok(taken.includes('<!--more-->'));
  assert.ok(taken.indexOf('One paragraph more.') < taken.indexOf(mark), taken);
});

test('another player, picture or link is a change', () => {
  for (const [before, after] of [
    [
      '<iframe src="https://a.example/embed/1"></iframe>',
      '<iframe src="https://a.example/embed/2"></iframe>'
    ],
    [
      '<p><a href="https://a.example/1">More</a></p>',
      '<p><a href="https://a.example/2">More</a></p>'
    ],
    [
      '<img src="https://a.example/1.png" alt="A shawl">',
      '<img src="https://a.example/2.png" alt="A shawl">'
    ]
  ] as const) {
    const merged = mergeHtml(made + before, made + before, made + after);
    assert.equal(changesIn(merged).length, 1);
    assert.deepEqual(keysOf(takeChanges(merged, free)), keysOf(made + after));
  }
});

// A post as blocks of sentences, which random edits change.
type Block = { tag: 'p' | 'h2' | 'ul' | 'blockquote'; sentences: string[] };
const word = fc.stringMatching(/^[a-z]{3,6}$/);
const sentence = fc
  .array(word, { minLength: 3, maxLength: 9 })
  .map((some) => `Then ${some.join(' ')}`);
const block = fc.record({
  tag: fc.constantFrom('p', 'p', 'p', 'h2', 'ul', 'blockquote') as fc.Arbitrary<Block['tag']>,
  sentences: fc.array(sentence, { minLength: 1, maxLength: 5 })
});
/** No sentence is said twice: which of two that are the same was edited cannot be told. */
const numbered = (given: Block, name: string | number): Block => ({
  ...given,
  sentences: given.sentences.map((s, k) => `${s} ${name} ${k}.`)
});
const post = fc.array(block, { maxLength: 9 }).map((blocks) => blocks.map(numbered));
const htmlOf = (blocks: readonly Block[]) =>
  blocks
    .map(({ tag, sentences }) =>
      tag === 'ul'
        ? `<ul>${sentences.map((s) => `<li>${s}</li>`).join('')}</ul>`
        : `<${tag}>${sentences.join(' ')}</${tag}>`
    )
    .join('\n');

const edit = fc.record({
  what: fc.constantFrom('word', 'sentence', 'drop', 'insert', 'cut', 'add', 'tag', 'move'),
  at: fc.nat(999),
  within: fc.nat(999),
  block,
  sentence
});
type Edit = typeof edit extends fc.Arbitrary<infer E> ? E : never;
function edited(blocks: readonly Block[], edits: readonly Edit[], by: string): Block[] {
  const now = blocks.map((b) => ({ ...b, sentences: [...b.sentences] }));
  for (const [n, { what, at, within, block: other, sentence: said }] of edits.entries()) {
    const mark = `${by} ${n}`;
    if (what === 'insert') now.splice(at % (now.length + 1), 0, numbered(other, mark));
    const i = at % Math.max(1, now.length);
    const here = now[i];
    if (!here) continue;
    const k = within % Math.max(1, here.sentences.length);
    if (what === 'drop') now.splice(i, 1);
    else if (what === 'move') now.splice(within % now.length, 0, ...now.splice(i, 1));
    else if (what === 'tag') here.tag = here.tag === 'p' ? 'h2' : 'p';
    else if (what === 'sentence') here.sentences[k] = `${said} ${mark}.`;
    else if (what === 'add') here.sentences.splice(k, 0, `${said} ${mark}.`);
    else if (what === 'cut') here.sentences.splice(k, 1);
    else if (what === 'word') here.sentences[k] = `${here.sentences[k] ?? ''} Indeed ${mark}.`;
  }
  return now.filter((b) => b.sentences.length > 0);
}
const edits = fc.array(edit, { maxLength: 4 });
/** What is made follows the order of the talk; by hand things are put elsewhere as well. */
const changes = edits.map((some) => some.filter(({ what }) => what !== 'move'));
const versionsOf = ([base, byHand, anew]: readonly [Block[], Edit[], Edit[]]) => {
  const [mine, fresh] = [edited(base, byHand, 'by hand'), edited(base, anew, 'anew')];
  return {
    base: htmlOf(base),
    mine: htmlOf(mine),
    fresh: htmlOf(fresh),
    blocks: { base, mine, fresh }
  };
};
const versions = fc.tuple(post, edits, changes).map(versionsOf);
const unmoved = fc.tuple(post, changes, changes).map(versionsOf);
const said = (blocks: readonly Block[]) =>
  new Set(
    blocks
      .flatMap((b) => b.sentences.flatMap((s) => s.match(/[^.]+\./g) ?? []))
      .map((s) => s.trim())
  );
const RUNS = { numRuns: Number(process.env.RUNS ?? 250), seed: Number(process.env.SEED ?? 1) };

test('taking nothing changes nothing, to the character', () => {
  fc.assert(
    fc.property(versions, ({ base, mine, fresh }) => {
      assert.equal(takeChanges(mergeHtml(base, mine, fresh), none), mine);
    }),
    RUNS
  );
});

test('whatever HTML stands at a blog, taking nothing changes nothing', () => {
  const tag = fc.constantFrom(
    '<p>',
    '</p>',
    '<div>',
    '</div>',
    '<b>',
    '</b>',
    '<table>',
    '<tr>',
    '<li>',
    '<ul>',
    '</ul>',
    '<!--',
    '-->',
    '<br>',
    '&amp;',
    '&',
    '<img src=x>',
    '<h2>',
    'A word. ',
    'Another! ',
    '\n'
  );
  const wild = fc.array(tag, { maxLength: 14 }).map((parts) => parts.join(''));
  fc.assert(
    fc.property(wild, wild, wild, (base, mine, fresh) => {
      assert.equal(takeChanges(mergeHtml(base, mine, fresh), none), mine);
    }),
    RUNS
  );
});

test('where nothing was edited by hand, taking all gives what would be made now', () => {
  fc.assert(
    fc.property(versions, ({ base, fresh }) => {
      const merged = mergeHtml(base, base, fresh);
      assert.ok(changesIn(merged).every((change) => !change.isConflict));
      assert.deepEqual(keysOf(takeChanges(merged, free)), keysOf(fresh));
    }),
    RUNS
  );
});

test('where nothing is made otherwise, nothing is to be changed', () => {
  fc.assert(
    fc.property(versions, ({ base, mine }) => {
      assert.deepEqual(changesIn(mergeHtml(base, mine, base)), []);
      assert.deepEqual(changesIn(mergeHtml(base, mine, mine)), []);
    }),
    RUNS
  );
});

test('no sentence written by hand goes without a conflict that shows it', () => {
  fc.assert(
    fc.property(versions, ({ base, mine, fresh, blocks }) => {
      const merged = mergeHtml(base, mine, fresh);
      const shown = htmlText(
        changesIn(merged)
          .filter((change) => change.isConflict)
          .map((change) => `<p>${change.mine}</p>`)
          .join('')
      );
      const [after, everything] = [free, all].map((choose) =>
        htmlText(takeChanges(merged, choose))
      );
      const before = said(blocks.base);
      for (const own of said(blocks.mine)) {
        if (before.has(own)) continue;
        assert.ok(after?.includes(own), `lost: ${own}`);
        assert.ok(everything?.includes(own) || shown.includes(own), `not shown: ${own}`);
      }
    }),
    RUNS
  );
});

test('taking all that does not conflict twice is taking it once', () => {
  fc.assert(
    fc.property(unmoved, ({ base, mine, fresh }) => {
      const once = takeChanges(mergeHtml(base, mine, fresh), free);
      const twice = takeChanges(mergeHtml(base, once, fresh), free);
      assert.deepEqual(keysOf(twice), keysOf(once));
      // What was taken is what was made by then.
      assert.deepEqual(changesIn(mergeHtml(fresh, once, fresh)), []);
    }),
    RUNS
  );
});
