import assert from 'node:assert/strict';
import { test } from 'node:test';
import { brokenHtml, checkPost } from './checks.ts';
import { compose, type Material } from '../template/compose.ts';
import { defaultTemplate, type Template } from '../template/template.ts';
import { anItem } from '../../testing.ts';

const material: Material = {
  video: anItem({ id: 'v', kind: 'video', title: 'Threading a twill' }),
  description: 'A straight draw.',
  paragraphs: [{ start: 0, end: 1, text: 'Tie it.', from: 0, to: 1 }],
  article: {
    aim: null,
    summary: [],
    takeaways: [{ text: 'Tie it.', start: 0, end: 1, from: 0 }],
    body: [{ kind: 'paragraph', sentences: [{ text: 'Tie it.', start: 0, end: 1, from: 0 }] }],
    quote: null,
    leftOut: [],
    words: 2,
    subject: []
  },
  chapters: [{ start: 0, title: 'Why' }],
  seekTo: '',
  channel: { title: '', url: '' },
  blog: { title: '', url: '' },
  players: ['https://video.example'],
  now: '2026-06-01T10:00:00.000Z',
  key: 'k'
};
const kinds = (template: Partial<Template>, given: Partial<Material> = {}, needsCredit = false) =>
  checkPost(compose({ ...defaultTemplate, ...template }, { ...material, ...given }), {
    needsCredit
  }).map((f) => f.kind);

test('a whole post has nothing to check', () => assert.deepEqual(kinds({}), []));

test('what practitioners stumble over is found', () => {
  const without = (kind: string) => defaultTemplate.blocks.filter((b) => b.kind !== kind);
  assert.deepEqual(kinds({ blocks: without('embed') }), ['no-embed']);
  assert.deepEqual(kinds({ title: ' ' }), ['no-title']);
  assert.deepEqual(kinds({ title: 'x'.repeat(81) }), ['title-long']);
  assert.deepEqual(kinds({ categories: ['threading a TWILL'] }), ['title-as-category']);
  assert.deepEqual(kinds({ title: '{{ video.licence }}' }), ['no-title', 'field']);
  assert.deepEqual(kinds({}, { chapters: [] }), ['empty-block']);
  assert.deepEqual(kinds({}, {}, true), ['credit-missing']);
  assert.deepEqual(kinds({}, { paragraphs: [], article: null }), ['empty-block'], 'told once');
});

test('a text without links, and pictures without words, are found', () => {
  const post = compose(defaultTemplate, material);
  const found = (html: string) =>
    checkPost({ ...post, html }, { needsCredit: false }).map((f) => f.kind);
  const frame = '<iframe src="https://a.example/e"></iframe>';
  assert.deepEqual(found(`${frame}<p>No link.</p>`), ['no-links']);
  assert.deepEqual(
    found(`${frame}<a href="https://a.example">a</a><img src="x" alt=""><img src="y" alt="Loom">`),
    ['picture-without-text']
  );
});

test('a title of just 80 characters is not too long', () =>
  assert.deepEqual(kinds({ title: 'x'.repeat(80) }), []));

test('broken embed code', () => {
  assert.deepEqual(
    brokenHtml('<iframe src=“https://a.example/e/1”></iframe>')[0]?.detail,
    'curly-quotes'
  );
  assert.deepEqual(brokenHtml('<iframe></iframe>')[0]?.detail, 'frame-without-address');
  assert.deepEqual(
    brokenHtml('<figure><iframe src="https://a.example/"></iframe>')[0]?.detail,
    'unclosed'
  );
  assert.deepEqual(
    brokenHtml('<figure><iframe src="https://a.example/"></iframe></figure><p>one<p>two<br>'),
    []
  );
});
