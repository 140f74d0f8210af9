import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { h } from 'hastscript';
import { onLines, readHtml, writeHtml } from './html.ts';
import { readMarkdown, writeMarkdown } from './markdown.ts';
import { itemText, postBlocks } from './postBlocks.ts';

test('a post is written as Markdown with its fields; players and folded text stand as HTML', () => {
  const html =
    '<figure class="video"><iframe src="https://video.example/embed/1"></iframe></figure>' +
    '<h2>Reeds</h2><ol><li><p>Wind <em>it</em>.</p></li><li>Beam it.</li></ol>' +
    '<details><summary>Transcript</summary><p>Hello.</p></details><data value="key"></data>';
  assert.equal(
    writeMarkdown({ title: 'Reeds: a start', tags: ['reed'] }, readHtml(html)),
    [
      '---',
      'title: "Reeds: a start"',
      'tags:',
      '  - reed',
      '---',
      '',
      '<iframe src="https://video.example/embed/1"></iframe>',
      '',
      '## Reeds',
      '',
      '1. Wind *it*.',
      '',
      '2. Beam it.',
      '',
      '<details><summary>Transcript</summary><p>Hello.</p></details>',
      ''
    ].join('\n')
  );
});

test('a comparison stays a table', () => {
  const table =
    '<table><tr><th>Reed</th><th>Dents</th></tr><tr><td>Fine</td><td>60</td></tr></table>';
  assert.match(
    writeMarkdown({}, readHtml(table)),
    /\| Reed \| Dents \|\n\| -+ \| -+ \|\n\| Fine \| 60 +\|/
  );
});

test('HTML that stands in Markdown is read with it, each text where it stands in the file', () => {
  const { tree } = readMarkdown('One.\n\n<aside><p>Two <b>three</b>.</p></aside>\n');
  const blocks = postBlocks(tree, { withOffsets: true });
  assert.deepEqual(
    blocks.map((b) => (b.kind === 'paragraph' ? [b.text, b.offsets?.[0]?.offset] : null)),
    [
      ['One.', 0],
      ['Two three.', 16]
    ]
  );
});

test('what is written as Markdown reads as the same blocks, whatever marks the text has', () => {
  const text = fc
    .array(
      fc.constantFrom(
        'warp',
        '*weft*',
        '1.',
        '-',
        '_',
        '#',
        '<b>',
        '[x](y)',
        '`',
        '2 < 3',
        '&amp;',
        '|',
        '> '
      ),
      {
        minLength: 1,
        maxLength: 6
      }
    )
    .map((words) => `a ${words.join(' ')}`.replace(/\s+/g, ' ').trim());
  const block = fc.oneof(
    text.map((t) => h('p', t)),
    text.map((t) => h('h2', t)),
    fc.array(text, { minLength: 1, maxLength: 3 }).map((ts) =>
      h(
        'ol',
        ts.map((t) => h('li', t))
      )
    ),
    text.map((t) => h('blockquote', h('p', t)))
  );
  const said = (html: Parameters<typeof postBlocks>[0]) =>
    postBlocks(html).map((b) => [
      b.kind,
      b.kind === 'list' ? b.items.map(itemText) : 'text' in b ? b.text : ''
    ]);
  fc.assert(
    fc.property(fc.array(block, { minLength: 1, maxLength: 4 }), (blocks) => {
      // Two lists or quotations in a row would be one in Markdown.
      const apart = blocks.flatMap((b, i) => (i === 0 ? [b] : [h('p', 'between'), b]));
      const tree = readHtml(writeHtml(onLines(apart)));
      assert.deepEqual(said(readMarkdown(writeMarkdown({ title: 'x' }, tree)).tree), said(tree));
    })
  );
});
