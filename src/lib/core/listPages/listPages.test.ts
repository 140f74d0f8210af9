import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { anItem } from '../testing.ts';
import { cleanHtml } from '../feeds/clean.ts';
import { entriesOf, type Listable } from './entries.ts';
import { amiss, newListPage, type ListPage } from './listPage.ts';
import { listPagePayload } from './payload.ts';
import { renderListPage } from './render.ts';

const NOW = '2026-03-01T00:00:00.000Z';
const aPage = (given: Partial<ListPage> = {}) =>
  newListPage(
    { id: 'page', placeId: 'blog', key: '6d1f3c0a-4b53-5e0e-9c36-0d6b2f5a7c11', ...given },
    NOW
  );
const video = (id: string, given: Parameters<typeof anItem>[0] | object = {}): Listable => ({
  item: anItem({ id, kind: 'video', ...given }),
  post: null
});
const titles = (
  page: ListPage,
  listable: Listable[],
  lists: Parameters<typeof entriesOf>[2] = []
) => entriesOf(page, listable, lists).map((entry) => entry.title);

const warp = video('warp', { published: '2025-05-01T00:00:00.000Z', tags: ['Warp', 'Basics'] });
const reed = video('reed', { published: '2026-02-01T00:00:00.000Z', tags: ['basics'] });
const vat = video('vat', { published: '2026-01-15T00:00:00.000Z', duration: 725 });

test('public videos are listed, newest first, each leading to its post where people can see it', () => {
  const seen = { ...reed, post: anItem({ id: 'p', kind: 'post', summary: 'As written.' }) };
  const draft = { ...vat, post: anItem({ id: 'd', kind: 'post', visibility: 'draft' as const }) };
  const hidden = [
    video('private', { visibility: 'private' }),
    video('unlisted', { visibility: 'unlisted' }),
    video('coming', { visibility: 'scheduled' }),
    { item: anItem({ id: 'post', kind: 'post' }), post: null }
  ];
  const entries = entriesOf(aPage(), [warp, seen, draft, ...hidden], []);
  assert.deepEqual(
    entries.map(({ title, url }) => [title, url]),
    [
      ['reed', 'https://post.example/p'],
      ['vat', 'https://video.example/vat'],
      ['warp', 'https://video.example/warp']
    ]
  );
  assert.equal(entries[0]?.summary, 'As written.');
});

test('a tag is found however it is written, a playlist by what its channel calls its items', () => {
  const all = [warp, reed, vat];
  assert.deepEqual(titles(aPage({ only: { by: 'tag', name: ' BASICS ' } }), all), ['reed', 'warp']);
  const list = {
    url: 'list',
    placeId: 'channel',
    title: 'Dye',
    members: ['vat', 'gone'],
    read: NOW
  };
  const page = aPage({ only: { by: 'playlist', name: 'list' } });
  assert.deepEqual(titles(page, all, [list]), ['vat']);
  assert.deepEqual(titles(page, all, [{ ...list, placeId: 'another' }]), []);
  assert.deepEqual(titles(page, all), []);
});

test('only those of some channels are listed where they are named', () => {
  const other = video('other', { placeId: 'neighbours' });
  assert.deepEqual(titles(aPage({ places: ['neighbours'] }), [warp, other]), ['other']);
});

test('they stand by date or title, and no more than are wanted', () => {
  const all = [warp, reed, vat];
  assert.deepEqual(titles(aPage({ order: 'oldest' }), all), ['warp', 'vat', 'reed']);
  assert.deepEqual(titles(aPage({ order: 'title', most: 2 }), all), ['reed', 'vat']);
});

test('each year or month has a heading, in the language of the page', () => {
  const entries = entriesOf(aPage(), [warp, reed, vat], []);
  const headings = (html: string) => [...html.matchAll(/<h2>([^<]*)/g)].map((m) => m[1]);
  assert.deepEqual(headings(renderListPage(aPage(), entries)), ['2026', '2025']);
  const german = aPage({ groups: 'month', language: 'de' });
  assert.deepEqual(headings(renderListPage(german, entries)), [
    'Februar 2026',
    'Januar 2026',
    'Mai 2025'
  ]);
  const plain = renderListPage(aPage({ groups: 'none' }), entries);
  assert.deepEqual(headings(plain), []);
  assert.match(
    plain,
    /<li><a href="https:\/\/video\.example\/vat">vat<\/a> · <time datetime="2026-01-15">15 January 2026<\/time> · 12:05<\/li>/
  );
});

test('with pictures, each item has its own, its size and the beginning of what is said of it', () => {
  const picture = { url: 'https://video.example/p.png', width: 640, height: 360 };
  const [entry] = entriesOf(
    aPage(),
    [video('v', { pictures: [picture], summary: `${'word '.repeat(60)}` })],
    []
  );
  const html = renderListPage(aPage({ style: 'pictures' }), [entry!]);
  assert.match(html, /<h3><a href="https:\/\/video\.example\/v">v<\/a><\/h3>/);
  assert.match(html, /<img src="https:\/\/video\.example\/p\.png" alt="" width="640" height="360"/);
  assert.match(html, /<p>(word )+word…<\/p>/);
});

test('whatever titles say, what goes out is clean, says whose it is and links to every item', () => {
  const hostile = fc.oneof(
    fc.string(),
    fc.constantFrom(
      '<script>x()</script>',
      '"><img src=x onerror=x()>',
      '</a></li></ul>',
      '&amp;<b>'
    )
  );
  const blog = { title: 'Blog', url: 'https://blog.example/' };
  fc.assert(
    fc.property(
      fc.array(fc.record({ title: hostile, summary: hostile }), { minLength: 1, maxLength: 5 }),
      hostile,
      fc.constantFrom('lines' as const, 'pictures' as const),
      (given, intro, style) => {
        const listable = given.map((some, i) => video(`v${i}`, some));
        const page = aPage({ style, intro });
        const { html } = listPagePayload(page, entriesOf(page, listable, []), blog);
        assert.doesNotMatch(html, /<script|<img src="?x/);
        const { links, origin } = cleanHtml(html, blog.url);
        assert.equal(origin, page.key);
        for (const { item } of listable) assert.ok(links.includes(item.url));
      }
    )
  );
});

test('a page that would lose most of its items, or all, waits', () => {
  assert.equal(amiss({ sentItems: 10 }, 9), '');
  assert.equal(amiss({ sentItems: 10 }, 5), '');
  assert.equal(amiss({ sentItems: 10 }, 4), 'shrunk');
  assert.equal(amiss({ sentItems: 3 }, 1), '');
  assert.equal(amiss({ sentItems: 0 }, 0), 'empty');
});
