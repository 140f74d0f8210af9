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
  type ComposedPost
} from '../../src/lib/core/article/template/compose.ts';
import { defaultTemplate, templateSchema } from '../../src/lib/core/article/template/template.ts';
import { material, materialOf, PLAYER, template, words } from './hostilePosts.ts';
import { endsSoon } from './limit.ts';

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
    { numRuns: 400, includeErrorInReport: true }
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
  const file = writeLaneFile({ ...lane, approval: { mode: 'always', upToDate: 'ask' } }, []);
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
