import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { readPage } from './page.ts';

const page = `<!doctype html><html><head><title>Threading
  a twill</title><base href="https://loom.example/x/">
<link rel="alternate" type="application/atom+xml" title="Uploads" href="/feed.xml">
<link rel="alternate" type="application/json+oembed" href="/oembed?url=a&amp;b">
<link rel="canonical" href="watch"><link rel="micropub" href="https://loom.example/mp">
<script type="application/ld+json">{"@context":"https://schema.org","@graph":[{"@type":["VideoObject"],"name":"T",
"embedUrl":"/e/1","caption":{"contentUrl":"c.vtt","inLanguage":"en"},
"hasPart":[{"@type":"Clip","name":"One","startOffset":0},{"@type":"Clip","name":"Two","startOffset":"42"}],
"potentialAction":{"@type":"SeekToAction","target":"https://loom.example/watch?t={seek_to_second_number}"}}]}</script>
<script type="application/ld+json">{ broken</script></head><body></body></html>`;

test('a page tells its feeds, endpoints and videos', () => {
  const facts = readPage(page, 'https://loom.example/watch/1');
  assert.equal(facts.title, 'Threading a twill');
  assert.deepEqual(facts.feeds, [{ url: 'https://loom.example/feed.xml', title: 'Uploads' }]);
  assert.equal(facts.oembed, 'https://loom.example/oembed?url=a&b');
  assert.equal(facts.canonical, 'https://loom.example/x/watch');
  assert.equal(facts.micropub, 'https://loom.example/mp');
  const [video] = facts.videos;
  assert.equal(video?.embedUrl, 'https://loom.example/e/1');
  assert.deepEqual(video?.captions, [{ url: 'https://loom.example/x/c.vtt', language: 'en' }]);
  assert.deepEqual(
    video?.chapters.map((c) => [c.start, c.title]),
    [
      [0, 'One'],
      [42, 'Two']
    ]
  );
  assert.match(video?.seekTo ?? '', /\{seek_to_second_number\}/);
});

test('a feed that is only a link to a script is not taken', () => {
  const facts = readPage(
    '<link rel=alternate type="application/rss+xml" href="javascript:1">',
    'https://a.example/'
  );
  assert.deepEqual(facts.feeds, []);
});

test('no page makes it fail', () => {
  const piece = fc.constantFrom(
    '<script type="application/ld+json">',
    '</script>',
    '{"@type":"VideoObject"',
    '}',
    '<link rel=alternate',
    ' href=',
    '>',
    '[',
    ']',
    'x'
  );
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 40 }), (parts) => {
      assert.ok(Array.isArray(readPage(parts.join(''), 'https://a.example/').videos));
    })
  );
});
