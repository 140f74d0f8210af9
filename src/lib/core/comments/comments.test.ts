import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { readFeed } from '../feeds/read.ts';
import { citedOf } from './cite.ts';
import { hasLinks, inOrder, type Comment } from './comment.ts';
import { toComments } from './readComments.ts';

const NOW = '2026-03-01T00:00:00.000Z';
const aComment = (given: Partial<Comment>): Comment => ({
  id: given.nativeId ?? 'c',
  videoId: 'video',
  nativeId: 'c',
  url: 'https://channel.example/watch/1#c',
  author: 'Orla Fennick',
  authorUrl: '',
  html: '<p>Which reed?</p>',
  published: NOW,
  answers: '',
  choice: 'bring',
  isGone: false,
  changed: NOW,
  ...given
});

const feedOf = (...entries: string[]) =>
  `<feed xmlns="http://www.w3.org/2005/Atom" xmlns:thr="http://purl.org/syndication/thread/1.0">
  <id>f</id><title>Comments</title><updated>${NOW}</updated><author><name>The Studio</name></author>
  ${entries.join('')}</feed>`;
const entryOf = (id: string, inner: string) =>
  `<entry><id>${id}</id><title>A comment</title><updated>${NOW}</updated>${inner}</entry>`;
const read = (...entries: string[]) =>
  toComments(
    readFeed(feedOf(...entries), 'https://channel.example/c.xml', NOW).entries,
    'video',
    NOW
  );

test('a feed of comments tells who wrote what, when, and in answer to whom', () => {
  const [first, second] = read(
    entryOf(
      'a',
      `<link href="/watch/1#a"/><author><name>Orla Fennick</name><uri>https://yarns.example/</uri></author>
       <published>2026-02-01T10:00:00Z</published><thr:in-reply-to ref="video-1"/>
       <content type="html">&lt;p&gt;Which &lt;em&gt;reed&lt;/em&gt;?&lt;/p&gt;</content>`
    ),
    entryOf(
      'b',
      '<thr:in-reply-to ref="a"/><content type="text">The 8 dent one &amp; slowly.</content>'
    )
  );
  assert.equal(first?.author, 'Orla Fennick');
  assert.equal(first?.authorUrl, 'https://yarns.example/');
  assert.equal(first?.url, 'https://channel.example/watch/1#a');
  assert.equal(first?.published, '2026-02-01T10:00:00.000Z');
  assert.equal(first?.html, '<p>Which <em>reed</em>?</p>');
  assert.equal(second?.answers, 'a');
  // Nobody is named: not the owner of the channel either.
  assert.equal(second?.author, '');
  assert.equal(second?.html, 'The 8 dent one &amp; slowly.');
});

test('a comment loads nothing, runs nothing and vouches for nothing', () => {
  const [spam, empty] = read(
    entryOf(
      'a',
      `<content type="html">&lt;p onclick="x()"&gt;Yarn &lt;a href="https://cheap.example/" onclick="x()"&gt;here&lt;/a&gt;
       &lt;a href="javascript:x()"&gt;and here&lt;/a&gt;&lt;img src="https://cheap.example/seen.png"&gt;
       &lt;iframe src="https://cheap.example/"&gt;&lt;/iframe&gt;&lt;script&gt;x()&lt;/script&gt;&lt;/p&gt;</content>`
    ),
    entryOf('b', '<content type="html">&lt;img src="https://cheap.example/seen.png"&gt;</content>')
  );
  assert.doesNotMatch(spam?.html ?? '', /onclick|javascript|<img|iframe|script|seen\.png/);
  assert.match(
    spam?.html ?? '',
    /<a href="https:\/\/cheap\.example\/" rel="nofollow ugc">here<\/a>/
  );
  assert.ok(spam && hasLinks(spam));
  assert.equal(empty, undefined);
});

test('an entry with a feed of replies names it and how many there are, in Atom and RSS', () => {
  const [atom] = readFeed(
    feedOf(
      entryOf(
        'v',
        `<link rel="replies" type="text/html" href="/watch/1#comments"/>
         <link rel="replies" type="application/atom+xml" href="/watch/1/c.xml" thr:count="3"/>`
      )
    ),
    'https://channel.example/feed.xml',
    NOW
  ).entries;
  assert.deepEqual(atom?.replies, { url: 'https://channel.example/watch/1/c.xml', count: 3 });
  const [rss] = readFeed(
    `<rss version="2.0" xmlns:wfw="http://wellformedweb.org/CommentAPI/" xmlns:slash="http://purl.org/rss/1.0/modules/slash/">
     <channel><title>x</title><item><title>t</title><link>https://blog.example/1</link>
     <wfw:commentRss>https://blog.example/1/feed</wfw:commentRss><slash:comments>4</slash:comments></item></channel></rss>`,
    'https://blog.example/feed',
    NOW
  ).entries;
  assert.deepEqual(rss?.replies, { url: 'https://blog.example/1/feed', count: 4 });
});

test('answers stand under what they answer, oldest first', () => {
  const at = (day: number) => `2026-01-0${day}T00:00:00.000Z`;
  const order = inOrder([
    aComment({ nativeId: 'late', published: at(4) }),
    aComment({ nativeId: 'answer', published: at(3), answers: 'early' }),
    aComment({ nativeId: 'early', published: at(1) }),
    aComment({ nativeId: 'deep', published: at(5), answers: 'answer' }),
    aComment({ nativeId: 'middle', published: at(2), answers: 'what is not known' })
  ]);
  assert.deepEqual(
    order.map((c) => c.nativeId),
    ['early', 'answer', 'deep', 'middle', 'late']
  );
});

test('whoever answers whom, each comment stands once', () => {
  const names = fc.constantFrom('a', 'b', 'c', 'd', 'e');
  const comments = fc.uniqueArray(
    fc.record({ nativeId: names, answers: fc.oneof(names, fc.constant('')) }),
    { selector: (c) => c.nativeId }
  );
  fc.assert(
    fc.property(comments, (given) => {
      const order = inOrder(given.map(aComment));
      assert.deepEqual(order.map((c) => c.nativeId).sort(), given.map((c) => c.nativeId).sort());
    })
  );
});

test('a post cites what was chosen and stands, and names all else', () => {
  const cited = citedOf([
    aComment({ nativeId: 'a' }),
    aComment({ nativeId: 'b', answers: 'a' }),
    aComment({ nativeId: 'c', choice: 'open' }),
    aComment({ nativeId: 'd', choice: 'leave' }),
    aComment({ nativeId: 'e', isGone: true })
  ]);
  assert.deepEqual(
    cited.comments.map((c) => c.uid),
    ['urn:uuid:a', 'urn:uuid:b']
  );
  assert.equal(cited.comments[1]?.answers, 'https://channel.example/watch/1#c');
  assert.deepEqual(cited.without.sort(), ['urn:uuid:c', 'urn:uuid:d', 'urn:uuid:e']);
});
