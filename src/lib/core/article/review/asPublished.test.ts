import assert from 'node:assert/strict';
import { test } from 'node:test';
import { showAsPublished } from './asPublished.ts';

const page = `<!doctype html><html><head><title>Old</title><link rel="stylesheet" href="../style.css"><script>bad()</script></head>
<body><article class="h-entry"><h1 class="p-name">Old</h1><p><time class="dt-published" datetime="2020-01-01">2020</time>
by <a class="p-author h-card" href="/">Old author</a> · <span class="p-category">A</span> · <span class="p-category">B</span></p>
<div class="e-content"><p>Old text</p></div></article><footer>Foot</footer></body></html>`;
const post = {
  title: 'New <title>',
  html: '<p>New text</p>',
  author: 'Isolde',
  published: '2026-06-01T10:00:00.000Z',
  categories: ['Loom', 'Twill'],
  picture: { url: 'https://c.example/l.png', alt: 'Cloth' }
};

test('the blog’s page with another post in it', () => {
  const html = showAsPublished(page, 'https://blog.example/posts/old', post) ?? '';
  assert.match(html, /<h1 class="p-name">New &#x3C;title><\/h1>/);
  assert.match(html, /<div class="e-content"><p>New text<\/p><\/div>/);
  assert.match(html, /href="https:\/\/blog\.example\/style\.css"/);
  assert.match(html, /<img src="https:\/\/c\.example\/l\.png" alt="Cloth"/);
  assert.match(html, /Loom, Twill<\/span><\/p>/);
  assert.match(html, /2026-06-01</);
  assert.match(html, /Foot/);
  assert.doesNotMatch(html, /Old|<script/);
});

test('no categories leave no separators', () => {
  const html = showAsPublished(page, 'https://blog.example/', { ...post, categories: [] }) ?? '';
  assert.match(html, /Isolde<\/a><\/p>/);
});

test('a page that does not say where things stand', () => {
  assert.equal(showAsPublished('<p class="h-entry">x</p>', 'https://blog.example/', post), null);
});
