import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { readHtml } from '../markup/html.ts';
import { readMarkdown } from '../markup/markdown.ts';
import { itemText, postBlocks } from '../markup/postBlocks.ts';
import { scriptOptionsSchema, type ScriptOptions } from './line.ts';
import { writeScript } from './script.ts';

const english = (options: Partial<ScriptOptions> = {}) =>
  scriptOptionsSchema.parse({ language: 'en', ...options });
const scriptOf = (html: string, options = english(), title = 'A title') =>
  writeScript({ title, blocks: postBlocks(readHtml(html)) }, options);

const POST = `<h1>A title</h1>
<p>Wind the warp with <a href="https://wrenfold.example/x">a firm hand</a>.<sup><a href="#n1">1</a></sup> It takes 20 min.</p>
<h2>The beam</h2>
<figure><img src="/beam.png" alt="The back beam"><figcaption>Paper between the layers.</figcaption></figure>
<ol><li>Tie on.</li><li>Turn <b>once</b>.<ul><li>Look.</li></ul></li></ol>
<blockquote><p>Slow is quick.</p><cite>Juna</cite></blockquote>
<pre><code>x = 1</code></pre>
<table><tr><td>a</td><td>b</td></tr></table>
<div><img src="1.png" alt="one"><img src="2.png" alt="two"><img src="3.png" alt="three"></div>
<iframe src="https://channel.example/1" title="The video"></iframe>
<details><summary>More</summary><p>Hidden.</p></details>
<ol><li>Said by Juna. <a href="#r1">↩</a></li></ol>`;

test('the blocks of a post: what is read, shown and passed over', () => {
  assert.deepEqual(
    postBlocks(readHtml(POST)).map((b) => (b.kind === 'unspoken' ? `${b.kind}:${b.what}` : b.kind)),
    [
      'heading',
      'paragraph',
      'heading',
      'picture',
      'list',
      'quote',
      'unspoken:code',
      'unspoken:table',
      'picture',
      'unspoken:gallery',
      'unspoken:embed',
      'unspoken:folded',
      'unspoken:footnote'
    ]
  );
});

test('a script: headings announced, links as their text, note marks gone, lists counted', () => {
  const { parts, leftSilent } = scriptOf(POST);
  assert.deepEqual(
    parts.map((p) => [p.kind, p.lines.map((l) => l.spoken).join(' | ')]),
    [
      ['title', 'A title'],
      ['text', 'Wind the warp with a firm hand. | It takes twenty minutes.'],
      ['section', 'The beam.'],
      ['picture', 'Paper between the layers.'],
      ['list', 'Three steps. One: Tie on. | Two: Turn once. | Three: Look.'],
      ['quote', 'Slow is quick.'],
      ['picture', ''],
      ['end', 'Read the whole post at the address below.']
    ]
  );
  assert.deepEqual(
    leftSilent.map((n) => n.reason),
    ['same-as-title', 'code', 'table', 'gallery', 'embed', 'folded', 'footnote']
  );
});

test('what cannot be read out is reported in a line where that is wanted', () => {
  const { parts } = scriptOf(POST, english({ asides: 'tell', announcesHeadings: false }));
  assert.deepEqual(
    parts
      .filter((p) => p.kind === 'aside')
      .map((p) => p.lines[0]?.spoken.split(' ').slice(-4).join(' ')),
    [
      'piece of code here.',
      'has a table here.',
      'has more pictures here.',
      'something to play here.',
      'on this, folded away.'
    ]
  );
  assert.equal(parts.find((p) => p.kind === 'section')?.lines[0]?.spoken, '');
});

test('each line knows its place in the post', () => {
  const blocks = postBlocks(readHtml(POST));
  for (const part of scriptOf(POST).parts) {
    for (const line of part.lines) {
      const block = line.source && blocks[line.source.block];
      if (!block || !line.source || block.kind === 'unspoken') continue;
      const text =
        block.kind === 'list'
          ? block.items.map(itemText).join(' ')
          : block.kind === 'picture'
            ? block.caption
            : block.text;
      assert.equal(text.slice(line.source.from, line.source.to), line.text);
    }
  }
});

test('Markdown with tables and footnotes reads like its HTML', () => {
  const blocks = postBlocks(
    readMarkdown(
      '---\ntitle: x\n---\n# A\n\nHi[^1] there.\n\n| a |\n|--|\n| 1 |\n\n1. one\n2. two\n\n[^1]: note'
    ).tree
  );
  assert.deepEqual(
    blocks.map((b) => (b.kind === 'unspoken' ? b.what : b.kind)),
    ['heading', 'paragraph', 'table', 'list', 'footnote']
  );
  assert.equal(blocks[1]?.kind === 'paragraph' && blocks[1].text, 'Hi there.');
});

test('a target keeps what tells most, in order, with the headings above it', () => {
  const paragraphs = Array.from(
    { length: 8 },
    (_, i) =>
      `<h2>Part ${'abcdefgh'[i]}</h2><p>The warp of part ${i} needs a new reed and a good tension. We had tea. It rained a little on that day.</p>`
  ).join('');
  const whole = scriptOf(paragraphs);
  for (const target of [30, 60]) {
    const short = scriptOf(paragraphs, english({ target }));
    assert.ok(short.seconds <= target && short.seconds > target * 0.6, `${short.seconds}`);
    assert.equal(short.wholeSeconds, whole.seconds);
    const ids = short.parts.flatMap((p) => p.lines.map((l) => l.id));
    const order = whole.parts.flatMap((p) => p.lines.map((l) => l.id));
    assert.deepEqual(
      ids,
      order.filter((id) => ids.includes(id))
    );
    short.parts.forEach((part, i) => {
      if (part.kind === 'section') assert.equal(short.parts[i + 1]?.kind, 'text');
    });
  }
});

test('a cut keeps what the post rests on, whole pairs, and a picture', () => {
  const filler = 'We counted 24 rows, 36 stitches, 12 colours and 7 balls of wool that day. ';
  const post = `<p>${filler.repeat(3)}</p><h2>The rule</h2>
<p>The rule is two parts cold and one part warm. Cold means that it steps back from you. Warm means that it comes towards you. ${filler.repeat(4)}</p>
<figure><img src="https://x.example/a.png" alt="Two cold and one warm stripe"><figcaption>${filler.repeat(2)}</figcaption></figure>
<h2>Later</h2><p>${filler.repeat(6)}</p>`;
  for (const target of [30, 45, 60]) {
    const { parts, seconds } = scriptOf(post, english({ target }), 'Cold and warm');
    assert.ok(seconds <= target, `${seconds} of ${target}`);
    const told = parts.flatMap((p) => p.lines.map((l) => l.text)).join(' ');
    assert.match(told, /The rule is two parts cold/);
    assert.equal(told.includes('Cold means'), told.includes('Warm means'));
    assert.equal(parts.filter((p) => p.kind === 'picture').length, 1);
  }
});

test('a cut keeps what the user pinned, and the picture of a sentence that it keeps', () => {
  const filler = 'We had tea and it rained a little on that day. ';
  const post = `<p>${filler.repeat(4)}</p><p>The red skeins hang in the window. ${filler.repeat(2)}</p>
<img src="https://x.example/a.png" alt="Red skeins in a window"><p>${filler.repeat(4)}Linen keeps its shape in the wash.</p>`;
  const { parts } = scriptOf(post, english({ target: 30 }), 'Red skeins');
  assert.match(parts.flatMap((p) => p.lines.map((l) => l.text)).join(' '), /red skeins hang/);
  assert.equal(parts.filter((p) => p.kind === 'picture').length, 1);
  const last = scriptOf(post)
    .parts.filter((p) => p.kind === 'text')
    .at(-1)
    ?.lines.at(-1);
  const pinned = scriptOf(post, english({ target: 20, pinned: [last?.id ?? ''] }), 'Red skeins');
  assert.ok(pinned.parts.some((p) => p.lines.some((l) => l.id === last?.id)));
});

test('no text is lost without a reason, whatever the post and the target', () => {
  const words = fc.array(
    fc.constantFrom('warp', 'weft', 'the', 'reed.', '12', 'beam?', 'e.g.', '(so)', 'Tea!'),
    {
      minLength: 1,
      maxLength: 14
    }
  );
  const text = words.map((w) => w.join(' '));
  const block = fc.oneof(
    text.map((t) => `<p>${t}</p>`),
    text.map((t) => `<h2>${t}</h2>`),
    fc
      .array(text, { minLength: 1, maxLength: 4 })
      .map((items) => `<ul>${items.map((i) => `<li>${i}</li>`).join('')}</ul>`),
    text.map((t) => `<blockquote>${t}</blockquote>`),
    text.map((t) => `<pre>${t}</pre>`),
    text.map((t) => `<div>${t}<span> ${t}</span></div>`),
    text.map((t) => `<table><tr><td>${t}</td></tr></table>`)
  );
  const letters = (s: string) => s.replace(/[^\p{L}\p{N}]/gu, '');
  fc.assert(
    fc.property(
      fc.array(block, { maxLength: 9 }),
      fc.constantFrom(null, 5, 20, 60),
      (html, target) => {
        const { parts, leftSilent } = scriptOf(html.join('\n'), english({ target }));
        const kept = parts.flatMap((p) => (p.block < 0 ? [] : p.lines.map((l) => letters(l.text))));
        const left = leftSilent.map((n) => letters(n.text));
        const all = letters(html.join(' ').replace(/<[^>]+>/g, ' '));
        const length = [...kept, ...left].reduce((sum, t) => sum + t.length, 0);
        assert.equal(length, all.length);
      }
    ),
    { numRuns: 200 }
  );
});
