import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { readHtml } from './html.ts';
import { readMarkdown } from './markdown.ts';
import { itemText, postBlocks, type PostBlock } from './postBlocks.ts';

const blocksOf = (html: string) => postBlocks(readHtml(html));

const kinds = (html: string) =>
  blocksOf(html).map((b) => (b.kind === 'unspoken' ? `unspoken ${b.what}` : b.kind));
const only = (html: string): PostBlock | undefined => {
  const blocks = blocksOf(html);
  assert.equal(blocks.length, 1, JSON.stringify(blocks));
  return blocks[0];
};

test('headings, paragraphs and loose text come in the order of the page', () => {
  assert.deepEqual(
    blocksOf('<article>Before<h2>Reeds</h2><p>A reed\n has <b>dents</b>.</p>after</article>'),
    [
      { kind: 'paragraph', text: 'Before' },
      { kind: 'heading', level: 2, text: 'Reeds' },
      { kind: 'paragraph', text: 'A reed has dents.' },
      { kind: 'paragraph', text: 'after' }
    ]
  );
});

test('what readers do not see is no part of it', () => {
  assert.deepEqual(
    blocksOf(
      '<style>p{}</style><script>go()</script><nav><p>Home</p></nav><p>Seen</p><template>x</template>'
    ),
    [{ kind: 'paragraph', text: 'Seen' }]
  );
});

test('lists are flattened, and keep where they begin to count', () => {
  const list = only('<ol start="3"><li>Warp<ul><li>Wind</li></ul></li><li><p>Beam</p>it</li></ol>');
  assert.equal(list?.kind, 'list');
  if (list?.kind !== 'list') return;
  assert.deepEqual([list.isOrdered, list.first], [true, 3]);
  assert.deepEqual(list.items.map(itemText), ['Warp', 'Wind', 'Beam it']);
  assert.deepEqual(
    list.items.map((item) => item.step),
    [1, null, 2]
  );
  assert.deepEqual(blocksOf('<ul><li></li></ul>'), []);
});

test('a quotation names whom it quotes, apart from what was said', () => {
  assert.deepEqual(
    only('<blockquote><p>Slow is smooth.</p><footer>— <cite>Odd</cite></footer></blockquote>'),
    { kind: 'quote', text: 'Slow is smooth.', by: 'Odd' }
  );
  assert.deepEqual(only('<blockquote>Slow is smooth.</blockquote>'), {
    kind: 'quote',
    text: 'Slow is smooth.',
    by: ''
  });
});

test('a picture has its caption; three and more are a gallery that its first stands for', () => {
  assert.deepEqual(
    only('<figure><img src="a.png" alt="A  reed"><figcaption>On the loom</figcaption></figure>'),
    { kind: 'picture', url: 'a.png', alt: 'A reed', caption: 'On the loom' }
  );
  const img = (name: string) => `<img src="${name}.png" alt="${name}">`;
  assert.deepEqual(blocksOf(`<div>${img('a')}${img('b')}${img('c')}</div>`), [
    { kind: 'picture', url: 'a.png', alt: 'a', caption: '' },
    { kind: 'unspoken', what: 'gallery', text: 'b; c', alts: ['b', 'c'] }
  ]);
  assert.deepEqual(kinds(`<div>${img('a')}<p>Told</p>${img('b')}${img('c')}</div>`), [
    'picture',
    'paragraph',
    'picture',
    'picture'
  ]);
});

test('what cannot be read out is named for what it is', () => {
  assert.deepEqual(
    kinds(
      '<pre>1 2</pre><table><tr><td>1</td></tr></table><details><summary>More</summary>x</details>' +
        '<iframe src="https://video.example" title="Twill"></iframe><p><iframe title="In text"></iframe></p>'
    ),
    ['unspoken code', 'unspoken table', 'unspoken folded', 'unspoken embed', 'unspoken embed']
  );
});

test('footnotes and the marks that lead to them are no text', () => {
  const [text, note] = postBlocks(readMarkdown('Madder[^1] wants time.\n\n[^1]: An hour.').tree);
  assert.deepEqual(text, { kind: 'paragraph', text: 'Madder wants time.' });
  assert.ok(note?.kind === 'unspoken' && note.what === 'footnote');
  assert.equal(only('<p>m<sup>2</sup></p>')?.kind, 'paragraph');
  assert.deepEqual(only('<p>9 m<sup>2</sup></p>'), { kind: 'paragraph', text: '9 m2' });
});

test('front matter is no text of a Markdown post', () => {
  for (const source of ['---\ntitle: Reeds\n---\nText', '\uFEFF---\r\ntitle: Reeds\r\n---\r\nText'])
    assert.deepEqual(postBlocks(readMarkdown(source).tree), [{ kind: 'paragraph', text: 'Text' }]);
});

test('every word of a plain document is in its blocks once and in order, however it is nested', () => {
  const word = fc.stringMatching(/^[a-z]{1,8}$/);
  const { node } = fc.letrec<{ node: string }>((tie) => ({
    node: fc.oneof(
      { maxDepth: 4 },
      word.map((w) => `<p>${w}</p>`),
      word.map((w) => ` ${w} `),
      word.map((w) => `<h3>${w}</h3>`),
      fc
        .tuple(fc.constantFrom('div', 'section', 'article', 'aside'), fc.array(tie('node')))
        .map(([tag, inner]) => `<${tag}>${inner.join('')}</${tag}>`)
    )
  }));
  fc.assert(
    fc.property(node, (html) => {
      const said = blocksOf(html).flatMap((b) => ('text' in b ? b.text.split(' ') : []));
      const written = html
        .replace(/<[^>]*>/g, ' ')
        .trim()
        .split(/\s+/)
        .filter(Boolean);
      assert.deepEqual(said, written);
    })
  );
});
