import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { PlaceError } from '../model/place.ts';
import { isVideoFeed, readFeed, toItem } from './read.ts';

const URL = 'https://loom.example/feed.xml';
const NOW = '2026-06-01T00:00:00.000Z';
const read = (text: string) => readFeed(text, URL, NOW);
const first = (text: string) => {
  const entry = read(text).entries[0];
  assert.ok(entry);
  return entry;
};

const atom = `<?xml version="1.0"?><feed xmlns="http://www.w3.org/2005/Atom" xmlns:media="http://search.yahoo.com/mrss/" xmlns:dcterms="http://purl.org/dc/terms/">
<title>Wrenfold</title><id>x</id><author><name>Studio</name></author><link rel="alternate" href="/"/><link rel="next" href="?page=2"/>
<entry><id>tag:1</id><title type="html">Warp &amp;amp; &lt;i&gt;weft&lt;/i&gt;</title><link href="/watch/1"/>
<published>2026-05-01T09:00:00+02:00</published><updated>2026-05-02T09:00:00Z</updated><dcterms:accessRights>unlisted</dcterms:accessRights>
<media:group><media:description type="plain">One &lt; two

Three</media:description>
<media:content url="/c.webm" type="video/webm" medium="video" duration="61" lang="de"/>
<media:player url="/embed/1"/><media:license href="https://licence.example/by">by</media:license>
<media:thumbnail url="/s.png" width="320" height="180"/><media:thumbnail url="/l.png" width="1280" height="720"/>
<media:subTitle type="text/vtt" lang="de" href="/c.vtt"/>
<media:community><media:statistics views="1207" favorites="3"/></media:community></media:group></entry>
<entry><id>tag:2</id><title>Not yet</title><link href="/watch/2"/><published>2026-07-01T00:00:00Z</published><media:player url="/embed/2"/></entry></feed>`;

test('Atom with Media RSS', () => {
  const feed = read(atom);
  assert.equal(feed.next, 'https://loom.example/feed.xml?page=2');
  assert.equal(feed.home, 'https://loom.example/');
  assert.ok(isVideoFeed(feed));
  const [one, two] = feed.entries;
  assert.equal(one?.title, 'Warp & weft');
  assert.equal(one?.published, '2026-05-01T07:00:00.000Z');
  assert.equal(one?.visibility, 'unlisted');
  assert.equal(one?.language, 'de');
  assert.equal(one?.duration, 61);
  assert.equal(one?.author, 'Studio');
  assert.equal(one?.licence, 'https://licence.example/by');
  assert.equal(one?.embedUrl, 'https://loom.example/embed/1');
  assert.deepEqual(one?.pictures[1], {
    url: 'https://loom.example/l.png',
    width: 1280,
    height: 720
  });
  assert.deepEqual(one?.captions, [{ url: 'https://loom.example/c.vtt', language: 'de' }]);
  assert.equal(one?.html, '<p>One &lt; two</p>\n<p>Three</p>');
  assert.equal(one?.views, 1207);
  assert.equal(two?.visibility, 'scheduled');
  assert.ok(two && !('views' in two));
});

test('RSS 2.0 with CDATA, HTML in the title, relative links and no dates', () => {
  const entry =
    first(`<rss version="2.0" xmlns:content="http://purl.org/rss/1.0/modules/content/"><channel><title>N</title><link>https://loom.example/</link>
    <item><title><![CDATA[<b>Sleying</b> a reed &amp; more]]></title><link>/posts/reed</link><guid isPermaLink="false">g1</guid>
    <content:encoded><![CDATA[<p><iframe src="/embed/9"></iframe><a href="x">x</a></p>]]></content:encoded><category>At the loom</category></item></channel></rss>`);
  assert.equal(entry.title, 'Sleying a reed & more');
  assert.equal(entry.url, 'https://loom.example/posts/reed');
  assert.equal(entry.nativeId, 'g1');
  assert.equal(entry.published, null);
  assert.deepEqual(entry.embeds, ['https://loom.example/embed/9']);
  assert.deepEqual(entry.links, ['https://loom.example/posts/x']);
  assert.deepEqual(entry.tags, ['At the loom']);
});

test('RSS 1.0', () => {
  const entry =
    first(`<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" xmlns="http://purl.org/rss/1.0/" xmlns:dc="http://purl.org/dc/elements/1.1/">
    <channel rdf:about="https://loom.example/"><title>N</title><link>https://loom.example/</link></channel>
    <item rdf:about="https://loom.example/1"><title>One</title><link>https://loom.example/1</link><dc:date>2025-01-02</dc:date></item></rdf:RDF>`);
  assert.equal(entry.title, 'One');
  assert.equal(entry.published, '2025-01-02T00:00:00.000Z');
});

test('JSON Feed, with plain text and a video attachment', () => {
  const entry = first(
    JSON.stringify({
      version: 'https://jsonfeed.org/version/1.1',
      title: 'N',
      items: [
        {
          id: '7',
          url: '/p/7',
          content_text: 'a < b',
          date_published: '2026-01-01T00:00:00Z',
          attachments: [{ url: '/v.mp4', mime_type: 'video/mp4', duration_in_seconds: 12 }]
        }
      ]
    })
  );
  assert.equal(entry.kind, 'video');
  assert.equal(entry.html, 'a &lt; b');
  assert.equal(entry.title, 'a < b');
  assert.equal(entry.contentUrl, 'https://loom.example/v.mp4');
  assert.equal(entry.duration, 12);
});

test('entries without a name are passed over and counted, repeated ones taken once', () => {
  const feed = read(
    '<rss version="2.0"><channel><title>N</title><item><guid>a</guid><title>A</title></item><item><description>?</description></item><item><guid>a</guid><title>again</title></item></channel></rss>'
  );
  assert.deepEqual(
    feed.entries.map((e) => e.title),
    ['A']
  );
  assert.equal(feed.passedOver, 1);
});

test('entities of the document are not expanded', () => {
  const bomb = `<?xml version="1.0"?><!DOCTYPE a [<!ENTITY a "${'x'.repeat(50)}"><!ENTITY b "${'&a;'.repeat(50)}"><!ENTITY c "${'&b;'.repeat(50)}">]><rss version="2.0"><channel><title>N</title><item><guid>1</guid><title>&c;</title></item></channel></rss>`;
  const { entries } = read(bomb);
  assert.ok((entries[0]?.title.length ?? 0) < 100);
});

test('what is no feed and what is a broken one are told apart', () => {
  const kindOf = (text: string) => {
    try {
      read(text);
      return 'read';
    } catch (error) {
      assert.ok(error instanceof PlaceError);
      return error.problem.kind;
    }
  };
  assert.equal(kindOf('<!doctype html><title>A page</title>'), 'not-a-feed');
  assert.equal(kindOf(''), 'not-a-feed');
  assert.equal(kindOf(atom.slice(0, 700)), 'broken-feed');
  assert.equal(kindOf('{"version":"https://jsonfeed.org/version/1.1","items":['), 'broken-feed');
});

test('cut anywhere or mangled anyhow, a feed is read or refused, never a crash', () => {
  fc.assert(
    fc.property(
      fc.nat(atom.length),
      fc.nat(atom.length),
      fc.string({ maxLength: 6 }),
      (from, to, junk) => {
        const text = atom.slice(0, from) + junk + atom.slice(to);
        try {
          for (const entry of read(text).entries) assert.ok(entry.nativeId);
        } catch (error) {
          assert.ok(error instanceof PlaceError, String(error));
        }
      }
    ),
    { numRuns: 400 }
  );
});

test('an item keeps its id when it is retitled, dated anew and moved', () => {
  const entry = first(atom);
  const moved = {
    ...entry,
    title: 'Other',
    published: null,
    url: 'https://loom.example/elsewhere'
  };
  assert.equal(toItem(entry, 'place').id, toItem(moved, 'place').id);
  assert.notEqual(toItem(entry, 'place').id, toItem(entry, 'other').id);
});
