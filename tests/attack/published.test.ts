import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Element } from 'hast';
import { visit } from 'unist-util-visit';
import { ATTRIBUTES, ORIGIN_CLASS, TAGS } from '../../src/lib/core/feeds/allowed.ts';
import { cleanPost } from '../../src/lib/core/feeds/clean.ts';
import { readPage } from '../../src/lib/core/feeds/page.ts';
import { writeLaneFile, readLaneFile } from '../../src/lib/core/lanes/laneFile.ts';
import { newLane } from '../../src/lib/core/lanes/lane.ts';
import { readHtml, writeHtml } from '../../src/lib/core/markup/html.ts';
import {
  compose,
  finished,
  type ComposedPost,
  type Material
} from '../../src/lib/core/article/template/compose.ts';
import { defaultTemplate, templateSchema } from '../../src/lib/core/article/template/template.ts';
import { anItem } from '../../src/lib/core/testing.ts';
import { endsSoon } from './limit.ts';

/** What a stranger would like to have on the blog. */
const HOSTILE = [
  '<script>alert(1)</script>',
  '<script src=//evil.example/x.js>',
  '{{ video.title | raw }}',
  '<img src=x onerror=alert(1)>',
  '<svg onload=alert(1)><script>1</script></svg>',
  '<a href="javascript:alert(1)">x</a>',
  '<a href=" jAvAsCrIpT:alert(1)">x</a>',
  '<a href="data:text/html,<script>1</script>">x</a>',
  '<iframe src="https://evil.example/frame"></iframe>',
  '<iframe srcdoc="<script>1</script>"></iframe>',
  '<iframe src="javascript:alert(1)"></iframe>',
  '<form action="https://evil.example"><input name=key></form>',
  '<style>body{display:none}</style>',
  '<link rel=stylesheet href=//evil.example/x.css>',
  '<meta http-equiv=refresh content="0;url=https://evil.example">',
  '<base href="https://evil.example/">',
  '<math><mtext><table><mglyph><style><!--</style><img title="--&gt;&lt;img src=1 onerror=alert(1)&gt;">',
  '<noscript><p title="</noscript><img src=x onerror=alert(1)>">',
  '<template><script>1</script></template>',
  '<data class="swift-twin-origin" value="another"></data>',
  '<p style="position:fixed">x</p>',
  '<!--<img src="--><img src=x onerror=alert(1)//">',
  '<b><i><u>'.repeat(20),
  '</p></div></article>',
  '<textarea></textarea><script>1</script>',
  '<table><td><a href="https://fine.example/">fine</a>',
  '<details open ontoggle=alert(1)>',
  'Plain words, & an < unfinished'
];
const VALUES = [
  '{{ video.title }}',
  '{{ video.url }}',
  '{{ video.summary }}',
  '{{ video.author }}'
];
const PLAYER = 'https://channel.example';

const words = fc
  .array(fc.oneof(fc.constantFrom(...HOSTILE, ...VALUES), fc.string({ maxLength: 12 })), {
    maxLength: 5
  })
  .map((parts) => parts.join(' ').slice(0, 1900));
const address = fc.constantFrom(
  'https://channel.example/watch/1',
  'javascript:alert(1)//{seek_to_second_number}',
  'https://evil.example/"><script>1</script>',
  'data:text/html,x',
  ''
);
const material = fc.record({
  title: words,
  summary: words,
  author: words,
  description: words,
  url: address,
  embedUrl: address,
  seekTo: address,
  chapter: words
});
const template = fc
  .record({ title: words, heading: words, text: words })
  .map(({ title, heading, text }) =>
    templateSchema.parse({
      ...defaultTemplate,
      title,
      blocks: defaultTemplate.blocks.map((b) => ({ ...b, on: true, heading, text }))
    })
  );

const materialOf = (given: {
  title: string;
  summary: string;
  author: string;
  description: string;
  url: string;
  embedUrl: string;
  seekTo: string;
  chapter: string;
}): Material => ({
  video: anItem({
    id: 'v',
    kind: 'video',
    title: given.title,
    summary: given.summary,
    author: given.author,
    url: given.url,
    embedUrl: given.embedUrl,
    pictures: [{ url: given.url, width: 640, height: 360 }]
  }),
  description: given.description,
  paragraphs: [{ start: 0, end: 2, from: 0, to: 1, text: given.summary }],
  article: null,
  chapters: [{ start: 3.7, title: given.chapter }],
  seekTo: given.seekTo,
  channel: { title: given.author, url: `${PLAYER}/` },
  blog: { title: '', url: 'https://blog.example/' },
  players: [PLAYER],
  now: '2026-05-20T12:00:00Z',
  key: 'the-key'
});

/** Fails where something in a post could run, frame or lead elsewhere than it may. */
function assertHarmless(html: string): void {
  visit(readHtml(html), 'element', ({ tagName, properties }: Element) => {
    assert.ok(TAGS.includes(tagName), `<${tagName}> in ${html}`);
    const may = [...(ATTRIBUTES['*'] ?? []), ...(ATTRIBUTES[tagName] ?? []), 'className'].map((n) =>
      n.toLowerCase()
    );
    for (const [name, value] of Object.entries(properties)) {
      assert.ok(may.includes(name.toLowerCase()), `${name} of <${tagName}> in ${html}`);
      if (name === 'href') assert.match(String(value), /^(?:https?|mailto):/i);
      if (name === 'src') assert.match(String(value), /^https?:/i);
      if (name === 'src' && tagName === 'iframe')
        assert.equal(new URL(String(value)).origin, PLAYER);
    }
  });
}
const marksIn = (html: string): unknown[] => {
  const marks: unknown[] = [];
  visit(readHtml(html), 'element', ({ tagName, properties }) => {
    const isMark = [properties.className].flat().includes(ORIGIN_CLASS);
    if (tagName === 'data' && isMark) marks.push(properties.value);
  });
  return marks;
};
/** The same cleaned again, as where it is shown. */
const shown = (html: string): string =>
  writeHtml(readHtml(cleanPost(html, 'https://blog.example/', [PLAYER]).html));

const assertPublishable = ({ html }: ComposedPost | { html: string }) => {
  assertHarmless(html);
  assert.deepEqual(marksIn(html), ['the-key']);
  const body = html.slice(0, html.lastIndexOf('<data class="swift-twin-origin"'));
  assert.equal(shown(body), body, 'what is shown is what goes out');
};

test('what a stranger’s layout and a hostile item make is harmless, and the same where it is shown', () => {
  fc.assert(
    fc.property(template, material, (layout, given) => {
      assertPublishable(compose(layout, materialOf(given)));
    }),
    { numRuns: 1000, includeErrorInReport: true }
  );
});

test('a text edited by hand goes out by the same list', () => {
  fc.assert(
    fc.property(words, (html) => {
      assertPublishable({ ...finished(html, { ...materialOf(GIVEN), key: 'the-key' }) });
    }),
    { numRuns: 500 }
  );
});

const GIVEN = {
  title: 'T',
  summary: 'S',
  author: 'A',
  description: 'D',
  url: 'https://channel.example/watch/1',
  embedUrl: 'https://channel.example/embed/1',
  seekTo: 'https://channel.example/watch/1?t={seek_to_second_number}',
  chapter: 'C'
};

test('the player of a connected place stays, others are left out and told', () => {
  const layout = templateSchema.parse({
    ...defaultTemplate,
    blocks: [
      { id: 'embed', kind: 'embed', on: true },
      { id: 't', kind: 'text', on: true, text: '<iframe src="https://evil.example/x"></iframe>' }
    ]
  });
  const post = compose(layout, materialOf(GIVEN));
  assert.match(post.html, /channel\.example\/embed\/1/);
  assert.doesNotMatch(post.html, /evil/);
  assert.deepEqual(post.leftOut, ['https://evil.example/x']);
});

test('a watch page whose chapters lead to a script has no such chapters', () => {
  const page = (target: string) =>
    `<script type="application/ld+json">${JSON.stringify({
      '@type': 'VideoObject',
      url: 'https://channel.example/watch/1',
      name: 'x',
      potentialAction: [{ '@type': 'SeekToAction', target }]
    })}</script>`;
  const seekOf = (target: string) =>
    readPage(page(target), 'https://channel.example/watch/1').videos[0]?.seekTo;
  for (const target of [
    'javascript:alert(1)//{seek_to_second_number}',
    'JaVaScRiPt:alert({seek_to_second_number})',
    'data:text/html,{seek_to_second_number}',
    '{seek_to_second_number}:alert(1)'
  ])
    assert.doesNotMatch(seekOf(target) ?? '', /^(?!https?:|$)/, target);
  assert.equal(
    seekOf('/watch/1?t={seek_to_second_number}'),
    'https://channel.example/watch/1?t={seek_to_second_number}'
  );
});

test('a lane of a stranger waits for review, whatever its file says', () => {
  const lane = newLane('id', 'Fine', 'UTC', 0);
  const file = writeLaneFile({ ...lane, approval: { mode: 'always' } }, []);
  assert.match(file, /always/);
  assert.equal(readLaneFile(file, 'other', 1).lane.approval.mode, 'after-review');
});

test('a layout of a stranger that computes without end is stopped', () => {
  const heavy = `{% assign a = "${'x,'.repeat(400)}" | split: "," %}${'{% for i in (1..100000) %}{{ a | where_exp: "x", "x == 1" | join }}{% endfor %}'.repeat(3)}`;
  const layout = templateSchema.parse({
    ...defaultTemplate,
    blocks: Array.from({ length: 60 }, (_, i) => ({
      id: `b${i}`,
      kind: 'text',
      on: true,
      text: i % 2 ? heavy : heavy.replaceAll('| where_exp: "x", "x == 1"', '| sort | reverse')
    }))
  });
  const post = endsSoon(() => compose(layout, materialOf(GIVEN)));
  assert.ok(post.parts.every((p) => p.problems.length > 0));
  const many = Array.from({ length: 61 }, () => ({ id: 'a', kind: 'text', on: true }));
  assert.ok(!templateSchema.safeParse({ ...defaultTemplate, blocks: many }).success);
});
