import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { cleanHtml } from '../../feeds/clean.ts';
import { findElement, readHtml } from '../../markup/html.ts';
import { anItem } from '../../testing.ts';
import { compose, type Material } from './compose.ts';
import { slugOf } from './slug.ts';
import type { Article } from '../extract/article.ts';
import { tidyDescription, textToHtml } from './description.ts';
import { defaultTemplate, type Template } from './template.ts';

const said = (text: string, start: number, from: number) => ({ text, start, end: start + 2, from });
const article: Article = {
  aim: null,
  summary: [said('A twill is <simple>.', 2, 1)],
  takeaways: [said('Count first.', 20, 4)],
  body: [
    { kind: 'heading', text: 'Threading', start: 60, end: 80 },
    { kind: 'paragraph', sentences: [said('Thread it.', 60, 2), said('Then stop.', 64.5, 3)] },
    { kind: 'list', items: [said('Take four threads.', 70, 5)] },
    { kind: 'picture', url: 'https://c.example/p.png', alt: 'A "knot"', start: 71 }
  ],
  quote: said('So count.', 90, 6),
  leftOut: [],
  words: 9,
  subject: ['twill']
};

const material = (given: Partial<Material> = {}): Material => ({
  video: anItem({
    id: 'v1',
    kind: 'video',
    title: 'Threading "a" twill',
    url: 'https://c.example/watch/1',
    pictures: [
      { url: 'https://c.example/s.png', width: 320, height: 180 },
      { url: 'https://c.example/l.png', width: 1280, height: 720 }
    ]
  }),
  description: 'A straight draw.\n\n#weaving #twill\nSubscribe for more!',
  paragraphs: [
    { start: 0, end: 4, text: 'Hello <there>. A twill.', from: 0, to: 2 },
    { start: 60, end: 62, text: 'Now thread it.', from: 2, to: 3 }
  ],
  article,
  chapters: [
    { start: 0, title: 'Why' },
    { start: 60, title: 'Threading' }
  ],
  seekTo: 'https://c.example/watch/1?t={seek_to_second_number}',
  channel: { title: 'Loomworks', url: 'https://c.example/' },
  blog: { title: 'Notebook', url: 'https://b.example/' },
  players: ['https://video.example'],
  now: '2026-06-01T10:00:00.000Z',
  key: 'key-1',
  ...given
});

const all: Template = {
  ...defaultTemplate,
  blocks: defaultTemplate.blocks.map((b) => ({ ...b, on: true }))
};

test('a post is laid out block by block, in the order of the template', () => {
  const post = compose(all, material());
  assert.deepEqual(
    post.parts.map((p) => p.kind),
    all.blocks.map((b) => b.kind)
  );
  assert.equal(post.title, 'Threading "a" twill');
  assert.equal(post.slug, 'threading-a-twill');
  assert.equal(post.excerpt, 'A straight draw.');
  assert.equal(post.picture?.width, 1280);
  assert.equal(compose({ ...all, picture: 'none' }, material()).picture, null);
  assert.equal(post.date, null);
  const turned = { ...all, blocks: [...all.blocks].reverse(), date: 'video' as const };
  assert.deepEqual(
    compose(turned, material()).parts.map((p) => p.kind),
    turned.blocks.map((b) => b.kind)
  );
  assert.equal(compose(turned, material()).date, '2026-03-01T09:00:00.000Z');
});

test('quotation marks in a title do not break the embed code', () => {
  const { html } = compose(all, material());
  const clean = cleanHtml(html, 'https://b.example/');
  assert.deepEqual(clean.embeds, ['https://video.example/embed/v1']);
  assert.match(clean.html, /title="Threading &quot;a&quot; twill"/);
});

test('what is drawn from the talk keeps its seconds on the desk, and goes out without them', () => {
  const post = compose(all, material());
  assert.match(
    post.marked,
    /<h2 data-start="60.00" data-end="80.00">Threading<\/h2>\n<p data-start="60.00" data-end="66.50">Thread it. Then stop.<\/p>/
  );
  assert.match(post.marked, /<img src="https:\/\/c\.example\/p\.png" alt="A &quot;knot&quot;"/);
  assert.match(post.html, /<li><p>Count first.<\/p><\/li>/);
  assert.match(post.html, /A twill is &lt;simple>/);
  assert.doesNotMatch(post.html, /data-start|data-end/);
});

test('the transcript stands whole, folded under its heading', () => {
  const part = compose(all, material()).parts.find((p) => p.kind === 'transcript');
  assert.match(
    part?.html ?? '',
    /^<details><summary>Transcript<\/summary>\n<p>Hello &lt;there>\. A twill\.<\/p>\n<p>Now thread it\.<\/p>\n<\/details>$/
  );
  assert.match(cleanHtml(part?.html ?? '', 'https://b.example/').html, /<details><summary>/);
});

test('chapters link to their second, and stand without links where none can be made', () => {
  const part = (m: Material) =>
    compose(all, m).parts.find((p) => p.kind === 'chapters')?.html ?? '';
  assert.match(
    part(material()),
    /<a href="https:\/\/c\.example\/watch\/1\?t=60"><time datetime="PT60S">1:00<\/time><\/a> Threading/
  );
  assert.doesNotMatch(part(material({ seekTo: '' })), /<a /);
});

test('what is missing is reported with its reason, and leaves nothing behind in the HTML', () => {
  const bare = material({
    description: '',
    paragraphs: [],
    article: null,
    chapters: [],
    video: anItem({ id: 'v1', kind: 'video', embedUrl: '', author: '' })
  });
  const post = compose(all, bare);
  const reasons = Object.fromEntries(post.parts.map((p) => [p.kind, p.empty]));
  assert.deepEqual(reasons, {
    embed: 'no-embed',
    lead: 'no-text',
    picture: 'no-picture',
    description: 'no-description',
    summary: 'no-captions',
    takeaways: 'no-captions',
    article: 'no-captions',
    quote: 'no-captions',
    text: 'no-text',
    chapters: 'no-chapters',
    transcript: 'no-captions',
    credit: null,
    closing: null
  });
  assert.doesNotMatch(post.html, /<h2>|<iframe/);
});

test('the made post carries its origin', () => {
  assert.equal(
    cleanHtml(compose(defaultTemplate, material()).html, 'https://b.example/').origin,
    'key-1'
  );
});

test('values from outside never become markup', () => {
  const text = fc.string({
    unit: fc.constantFrom('<', '>', '"', '&', "'", 'a', ' ', '/', '{', '}', '|', '%')
  });
  fc.assert(
    fc.property(text, text, text, (title, description, cue) => {
      const made = compose(
        all,
        material({
          video: anItem({ id: 'v', kind: 'video', title: `${title}<script>` }),
          description: `${description}<script>`,
          paragraphs: [{ start: 0, end: 1, text: `${cue}<script>`, from: 0, to: 1 }],
          chapters: [{ start: 0, title: `${title}<script>` }]
        })
      );
      assert.equal(
        findElement(readHtml(made.html), (e) => e.tagName === 'script'),
        null
      );
    })
  );
});

test('a description loses its calls and hashtag lines, and its addresses become links', () => {
  assert.equal(tidyDescription('One.\n#a #b\nSubscribe to us!\n\nTwo.'), 'One.\n\nTwo.');
  assert.equal(
    textToHtml('See https://a.example/x?b=1&c=2.'),
    '<p>See <a href="https://a.example/x?b=1&amp;c=2">https://a.example/x?b=1&amp;c=2</a>.</p>'
  );
});

test('slugs hold letters, digits and hyphens, in any script', () => {
  assert.equal(slugOf('Die Kette aufbäumen: ganz in Ruhe!'), 'die-kette-aufbaumen-ganz-in-ruhe');
  assert.equal(slugOf('Straße & Don’t'), 'strasse-dont');
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (text) => {
      assert.match(slugOf(text), /^$|^[\p{L}\p{N}]+(-[\p{L}\p{N}]+)*$/u);
      assert.ok(slugOf(text).length <= 80);
    })
  );
});
