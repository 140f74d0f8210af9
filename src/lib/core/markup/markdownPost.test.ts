import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { markdownPost } from './markdownPost.ts';
import { MarkdownError } from './markdown.ts';

const SOURCE = [
  '---',
  'title: Reading a draft',
  'description: From the top.',
  '---',
  '',
  'A **draft** has four `parts`.',
  '',
  '## Threading',
  '',
  '1. Wind the warp.',
  '2. Beam it:',
  '',
  '   slowly.',
  '- [Reeds](https://blog.example/reeds)',
  '',
  '> Slow is smooth.',
  '',
  '![](loom.png)',
  '',
  '```',
  '1 2 3 4',
  '```',
  '',
  '<iframe src="https://video.example/embed/1"></iframe>'
].join('\n');

test('a post is read as blocks, with its front matter', () => {
  const post = markdownPost(SOURCE);
  assert.equal(post.title, 'Reading a draft');
  assert.equal(post.excerpt, 'From the top.');
  assert.deepEqual(post.blocks, [
    { kind: 'paragraph', text: 'A draft has four parts.' },
    { kind: 'heading', text: 'Threading' },
    { kind: 'item', text: 'Wind the warp.', step: 1 },
    { kind: 'item', text: 'Beam it:', step: 2 },
    { kind: 'item', text: 'slowly.' },
    { kind: 'item', text: 'Reeds' },
    { kind: 'quote', text: 'Slow is smooth.' },
    { kind: 'code', text: '1 2 3 4' }
  ]);
  assert.equal(post.links, 1);
  assert.equal(post.hasEmbed, true);
  assert.deepEqual(post.picturesWithoutText, [{ line: 18, column: 1 }]);
});

test('characters of a block know their line and column in the file', () => {
  const post = markdownPost(SOURCE);
  const pointOf = (text: string, offset: number) =>
    post.pointOf(
      post.blocks.findIndex((b) => b.text === text),
      offset
    );
  assert.deepEqual(pointOf('A draft has four parts.', 0), { line: 6, column: 1 });
  // Behind the marks of what is set bold, and of code.
  assert.deepEqual(pointOf('A draft has four parts.', 2), { line: 6, column: 5 });
  assert.deepEqual(pointOf('A draft has four parts.', 17), { line: 6, column: 23 });
  assert.deepEqual(pointOf('slowly.', 0), { line: 13, column: 4 });
});

test('without front matter the first heading is the title, and no block', () => {
  const post = markdownPost('Before\n\n# Reeds\n\nText\n\n# Reeds');
  assert.equal(post.title, 'Reeds');
  assert.deepEqual(post.titleAt, { line: 3, column: 1 });
  assert.deepEqual(
    post.blocks.map((b) => b.text),
    ['Before', 'Text']
  );
});

test('front matter that cannot be read is reported with its line', () => {
  assert.throws(
    () => markdownPost('---\ntitle: Reeds\nnote: "open\n---\nText'),
    (error) => error instanceof MarkdownError && error.line >= 3
  );
  assert.throws(() => markdownPost('---\n- one\n- two\n---\nText'), MarkdownError);
  assert.equal(markdownPost('---\n---\nText').blocks.length, 1);
});

test('lines keep their numbers, whatever ends them and however long the front matter is', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 6 }),
      fc.constantFrom('\n', '\r\n', '\r'),
      fc.integer({ min: 1, max: 5 }),
      (fields, end, blank) => {
        const front = Array.from({ length: fields }, (_, i) => `field${i}: ${i}`);
        const lines = ['---', ...front, '---', ...Array<string>(blank).fill(''), 'Here.'];
        const { pointOf, blocks } = markdownPost(lines.join(end));
        assert.equal(blocks.length, 1);
        assert.deepEqual(pointOf(0, 0), { line: lines.length, column: 1 });
      }
    )
  );
});
