import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { itemSchema, type Item } from '../model/item.ts';
import { newLane, type Lane, type LaneFilter } from './lane.ts';
import { hasWords, matches, searchSchema, type Search } from './search.ts';
import { dropReason, inOrder, type Candidate } from './filter.ts';

const NOW = Date.parse('2026-05-20T12:00:00Z');
const itemOf = (change: Partial<Item> = {}): Item =>
  itemSchema.parse({
    id: 'v',
    placeId: 'c',
    kind: 'video',
    nativeId: 'v',
    url: 'https://c.example/v',
    title: 'Sleying a reed',
    published: '2026-05-10T12:00:00Z',
    updated: null,
    visibility: 'public',
    author: 'Isolde',
    language: 'en-GB',
    licence: '',
    duration: 300,
    summary: 'Two ends in each dent.',
    pictures: [],
    embedUrl: '',
    contentUrl: '',
    captions: [],
    tags: ['reed', '#Weaving'],
    embeds: [],
    links: [],
    origin: null,
    ...change
  });
const candidateOf = (item: Partial<Item> = {}, change: Partial<Candidate> = {}): Candidate => ({
  item: itemOf(item),
  words: 200,
  owner: 'Isolde',
  likeMade: null,
  isInPlaylist: false,
  twin: { other: null, isSetAside: false, isInHand: false },
  ...change
});
const laneOf = (filter: Partial<LaneFilter> = {}, change: Partial<Lane> = {}): Lane => {
  const lane = newLane('l', 'Lane', 'Europe/Berlin', 0);
  return {
    ...lane,
    since: 0,
    ...change,
    filter: { ...lane.filter, scope: 'oldest-first', ...filter }
  };
};
const why = (candidate: Candidate, lane: Lane) => dropReason(candidate, lane, NOW)?.kind ?? null;

test('what is of the own channel and asks for nothing special passes', () => {
  assert.equal(why(candidateOf(), laneOf()), null);
});

test('each rule drops with its own reason, and passes what keeps to it', () => {
  const rules: [Partial<LaneFilter>, Partial<Item>, string, Partial<Item>][] = [
    [{ notOlderThan: 9 }, {}, 'too-old', { published: '2026-05-19T12:00:00Z' }],
    [{ notOlderThan: 9 }, { published: null }, 'no-date', {}],
    [{ shortest: 301 }, {}, 'too-short', { duration: 400 }],
    [{ longest: 60 }, {}, 'too-long', { duration: 44 }],
    [{ longest: 60 }, { duration: null }, 'no-length', { duration: 60 }],
    [{ languages: ['de'] }, {}, 'language', { language: 'de-AT' }],
    [{ needsCaptions: true }, {}, 'no-captions', { captions: [{ url: 'x', language: 'en' }] }],
    [{ needsPicture: true }, {}, 'no-picture', { pictures: [{ url: 'x', width: 1, height: 1 }] }],
    [{}, { visibility: 'unlisted' }, 'not-public', {}],
    [{}, { author: 'Juna' }, 'not-own', { author: 'isolde' }],
    [{ keep: ['heddle'] }, {}, 'lacks-words', { title: 'A heddle for the reed' }],
    [{ drop: ['reed'] }, {}, 'has-word', { title: 'Reeds', tags: [] }],
    [{ tags: ['dye'] }, {}, 'no-such-tag', { tags: ['Dye'] }],
    [{}, { published: '2026-06-01T00:00:00Z' }, 'not-out-yet', {}],
    [{}, { origin: 'key' }, 'made-item', {}],
    [{}, { madeFrom: 'https://b.example/p' }, 'made-item', {}]
  ];
  for (const [filter, bad, reason, good] of rules) {
    assert.equal(why(candidateOf(bad), laneOf(filter)), reason);
    if (!['no-date', 'too-old'].includes(reason))
      assert.equal(why(candidateOf(good), laneOf(filter)), null, reason);
  }
  assert.equal(why(candidateOf({}, { words: 99 }), laneOf({ fewestWords: 100 })), 'too-few-words');
  assert.equal(why(candidateOf({}, { words: 101 }), laneOf({ mostWords: 100 })), 'too-many-words');
});

test('other people’s items need a licence, or a permission that is written down', () => {
  const guest = { author: 'Juna' };
  const free = { ...guest, licence: 'https://creativecommons.org/licenses/by/4.0/' };
  assert.equal(why(candidateOf(free), laneOf({ others: 'licensed' })), null);
  assert.equal(why(candidateOf(guest), laneOf({ others: 'licensed' })), 'no-permission');
  assert.equal(why(candidateOf(guest), laneOf({ others: 'permitted' })), 'no-permission');
  const permission = 'Letter of 3 May';
  assert.equal(why(candidateOf(guest), laneOf({ others: 'permitted', permission })), null);
});

test('only what comes after the lane began is new', () => {
  const since = Date.parse('2026-05-15T00:00:00Z');
  const lane = laneOf({ scope: 'new' }, { since });
  assert.equal(why(candidateOf(), lane), 'before-the-lane');
  assert.equal(why(candidateOf({ published: '2026-05-15T00:00:01Z' }), lane), null);
});

test('a post that is there, a desk that is open and what was set aside are left alone', () => {
  const twin = { other: null, isSetAside: false, isInHand: false };
  const of = (change: Partial<typeof twin> | { other: string }) =>
    candidateOf({}, { twin: { ...twin, ...change } });
  assert.equal(why(of({ other: 'Sleying' }), laneOf()), 'has-twin');
  assert.equal(why(of({ isInHand: true }), laneOf()), 'in-hand');
  assert.equal(why(of({ isSetAside: true }), laneOf()), 'set-aside');
  // An update makes no half, so a post does not stand in its way.
  const { make } = laneOf();
  const updates = laneOf({}, { make: { ...make, kind: 'update' } });
  assert.equal(why(of({ other: 'Sleying' }), updates), null);
  assert.equal(why(candidateOf({}, { likeMade: 'Sleying' }), laneOf()), 'like-a-made-item');
});

test('what surely has its other half, untied, is not made again, unless a list names it', () => {
  const known = candidateOf({}, { likelyOther: 'Sleying' });
  assert.equal(why(known, laneOf()), 'likely-twin');
  const { make, source } = laneOf();
  assert.equal(why(known, laneOf({}, { make: { ...make, kind: 'update' } })), null);
  const sheet = { columns: ['address'], rows: [[known.item.url]], key: 0 };
  assert.equal(why(known, laneOf({}, { source: { ...source, sheet } })), null);
});

test('searches take any, all, a phrase, none of some words, and a hashtag', () => {
  const searched = {
    title: 'Sleying a reed',
    summary: 'Two ends in a dent. #Slow-Loom',
    tags: ['Reed']
  };
  const is = (search: Partial<Search>) => matches(searched, searchSchema.parse(search));
  assert.ok(is({}) && is({ any: ['warp', 'REED'] }) && is({ all: ['reed', 'dent'] }));
  assert.ok(!is({ any: ['warp'] }) && !is({ all: ['reed', 'warp'] }));
  assert.ok(is({ phrase: 'two ends' }) && !is({ phrase: 'ends two' }));
  assert.ok(!is({ without: ['dent'] }) && is({ without: ['den'] }));
  assert.ok(is({ hashtag: '#slow' }) && is({ hashtag: 'reed' }) && !is({ hashtag: 'slo' }));
  assert.ok(!hasWords('', '') && !hasWords('a', ' '));
});

test('no search ever throws, and asking for more never finds more', () => {
  const text = fc.string({ unit: 'grapheme', maxLength: 40 });
  fc.assert(
    fc.property(
      text,
      text,
      fc.array(text, { maxLength: 3 }),
      text,
      (title, summary, words, tag) => {
        const item = { title, summary, tags: words };
        const wide = searchSchema.parse({ any: words });
        const narrow = { ...wide, all: words, phrase: title, hashtag: tag };
        assert.ok(!matches(item, narrow) || matches(item, wide));
      }
    )
  );
});

test('the oldest or the newest come first, the same each time', () => {
  const some = ['2026-01-02', '2026-01-01', '2026-01-03'].map((d, i) =>
    candidateOf({ id: `v${i}`, published: `${d}T00:00:00Z` })
  );
  const ids = (scope: LaneFilter['scope']) =>
    inOrder(some, laneOf({ scope }).filter).map((c) => c.item.id);
  assert.deepEqual(ids('oldest-first'), ['v1', 'v0', 'v2']);
  assert.deepEqual(ids('newest-first'), ['v2', 'v0', 'v1']);
});

test('what stands in none of the playlists is left out, and told so', () => {
  const lane = laneOf();
  const listed = { ...lane, source: { ...lane.source, playlists: ['https://c.example/list'] } };
  assert.equal(why(candidateOf(), listed), 'not-in-playlist');
  assert.equal(why(candidateOf({}, { isInPlaylist: true }), listed), null);
  assert.equal(why(candidateOf({}, { isInPlaylist: true }), lane), null);
});

test('the most seen come first, and last what nobody counts', () => {
  const named = (id: string, views?: number) => candidateOf({ id, views });
  const all = [named('a', 5), named('b'), named('c', 900), named('d', 0), named('e', 5)];
  const order = inOrder(all, laneOf({ scope: 'most-seen-first' }).filter).map((c) => c.item.id);
  assert.deepEqual(order, ['c', 'a', 'e', 'd', 'b']);
});

test('of a twin one half is shared, the first that came out, and the other where that is left out', () => {
  const video = candidateOf({ id: 'v', published: '2026-03-01T09:00:00Z' });
  const post = candidateOf({ id: 'p', kind: 'post', published: '2026-03-02T09:00:00Z' });
  [video.otherHalf, post.otherHalf] = [post, video];
  const lane = laneOf();
  const updates = { ...lane, make: { ...lane.make, kind: 'update' as const } };
  const reasons = [video, post].map((c) => dropReason(c, updates, NOW)?.kind);
  assert.deepEqual(reasons, [undefined, 'other-half']);
  video.twin = { ...video.twin, isSetAside: true };
  assert.equal(dropReason(post, updates, NOW), null);
});
