import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { anItem } from '../testing.ts';
import { countStandings, standingsByMonth } from './inStep.ts';
import { noCircumstances, pairTwins } from './pair.ts';

const video = (id: string, given = {}) =>
  anItem({ id, kind: 'video', title: `Video ${id}`, ...given });
const post = (id: string, given = {}) =>
  anItem({ id, kind: 'post', title: `Video ${id}`, ...given });
const only = (...args: Parameters<typeof pairTwins>) => {
  const twins = pairTwins(...args);
  assert.equal(twins.length, 1);
  return twins[0]!;
};

test('a post belongs to the video it frames, however the address is written', () => {
  for (const embeds of [
    ['https://video.example/embed/a'],
    ['http://www.video.example/embed/a/?t=12']
  ]) {
    const twin = only([video('a')], [post('a', { embeds })]);
    assert.equal(twin.standing, 'in-step');
    assert.deepEqual(twin.reason, { kind: 'embeds' });
  }
  const linked = only(
    [video('a')],
    [post('a', { links: ['https://x.example/', 'https://video.example/a#c'] })]
  );
  assert.deepEqual(linked.reason, { kind: 'links' });
});

test('what stands alone is missing its other half', () => {
  const twins = pairTwins([video('a')], [post('b')]);
  assert.deepEqual(twins.map((t) => t.standing).sort(), ['no-post', 'no-video']);
});

test('of several posts the strongest tie wins, then the oldest; the others are kept in mind', () => {
  const frames = { embeds: ['https://video.example/embed/a'] };
  const twin = only(
    [video('a')],
    [
      post('link', { links: ['https://video.example/a'], published: '2020-01-01T00:00:00.000Z' }),
      post('late', { ...frames, published: '2026-02-01T00:00:00.000Z' }),
      post('early', { ...frames, published: '2026-01-01T00:00:00.000Z' })
    ]
  );
  assert.equal(twin.post?.id, 'early');
  assert.deepEqual(twin.otherPosts, ['late', 'link']);
});

test('a retitled video has drifted from its post; a post that was titled otherwise by choice has not', () => {
  const told = post('a', {
    embeds: ['https://video.example/embed/a'],
    title: 'How I do it',
    published: '2026-03-02T00:00:00.000Z'
  });
  assert.equal(only([video('a')], [told]).standing, 'in-step');
  const retitled = video('a', { updated: '2026-04-01T00:00:00.000Z' });
  const twin = only([retitled], [told]);
  assert.equal(twin.standing, 'drifted');
  assert.deepEqual(twin.reason, {
    kind: 'differs',
    changes: [],
    differences: [{ kind: 'title', video: 'Video a', post: 'How I do it' }]
  });
  const accepted = new Map([['a a', { video: 'Video a', post: 'How I do it' }]]);
  assert.equal(only([retitled], [told], { ...noCircumstances, accepted }).standing, 'in-step');
  const again = video('a', { title: 'Third', updated: '2026-02-01T00:00:00.000Z' });
  assert.equal(
    only([again], [told], { ...noCircumstances, accepted }).standing,
    'drifted',
    'after it was accepted'
  );
});

test('drafts, dates, the desk and the outbox put a twin in hand; setting aside wins over all', () => {
  const frames = { embeds: ['https://video.example/embed/a'] };
  const standing = (p: object, c = {}) =>
    only([video('a')], [post('a', { ...frames, ...p })], { ...noCircumstances, ...c });
  assert.equal(standing({ visibility: 'draft' }).reason.kind, 'post-is-draft');
  assert.equal(standing({ visibility: 'scheduled' }).reason.kind, 'post-is-dated');
  assert.equal(standing({ visibility: 'private' }).standing, 'in-step');
  for (const [stage, reason] of [
    ['in-review', 'in-review'],
    ['planned', 'planned'],
    ['under-way', 'publishing'],
    ['failed', 'publish-failed']
  ] as const) {
    const circumstances = { ...noCircumstances, publishing: new Map([['a', stage]]) };
    const twin = only([video('a')], [], circumstances);
    assert.deepEqual([twin.standing, twin.reason.kind], ['in-hand', reason]);
  }
  const onDesk = { ...noCircumstances, onDesk: new Map([['a', '2026-01-01']]) };
  assert.equal(only([video('a')], [], onDesk).standing, 'in-hand');
  const aside = { ...onDesk, setAside: new Map([['a', '2026-01-01']]) };
  assert.equal(only([video('a')], [], aside).standing, 'set-aside');
});

test('every item stands in exactly one twin, and the counts add up', () => {
  const ids = fc.uniqueArray(fc.nat(30).map(String), { maxLength: 12 });
  const links = fc.array(
    fc.nat(30).map((n) => `https://video.example/${n}`),
    { maxLength: 3 }
  );
  fc.assert(
    fc.property(ids, fc.array(links, { maxLength: 12 }), (videoIds, postLinks) => {
      const videos = videoIds.map((id) => video(id));
      const posts = postLinks.map((l, i) => post(`p${i}`, { links: l }));
      const twins = pairTwins(videos, posts);
      const seen = twins.flatMap((t) => [t.video?.id, t.post?.id, ...t.otherPosts]).filter(Boolean);
      assert.deepEqual([...seen].sort(), [...videos, ...posts].map((i) => i.id).sort());
      const counts = countStandings(twins);
      assert.equal(
        Object.values(counts).reduce((a, b) => a + b, 0),
        twins.length
      );
    })
  );
});

test('months without twins are filled in, and only so many are reported', () => {
  const at = (date: string) => pairTwins([video('a', { published: date })], [])[0]!;
  const months = standingsByMonth([at('2026-02-10'), at('2025-11-30')], 12);
  assert.deepEqual(
    months.map((m) => m.month),
    ['2025-11', '2025-12', '2026-01', '2026-02']
  );
  assert.equal(standingsByMonth([at('2026-02-10'), at('2000-01-01')], 6).length, 6);
  assert.deepEqual(standingsByMonth([]), []);
});

test('a video that was made from a post is tied to it, whatever else the post shows', () => {
  const other = anItem({ id: 'other', kind: 'video' });
  const made = anItem({
    id: 'made',
    kind: 'video',
    origin: 'key',
    madeFrom: 'https://blog.example/post/'
  });
  const upright = anItem({ id: 'upright', kind: 'video', madeFrom: 'https://blog.example/post' });
  const post = anItem({
    id: 'post',
    kind: 'post',
    url: 'https://blog.example/post',
    embeds: [other.url]
  });
  const twins = pairTwins([other, made, upright], [post]);
  assert.equal(twins.length, 3);
  for (const twin of twins) assert.equal(twin.post?.id, 'post');
  assert.equal(twins.find((t) => t.id === 'upright')?.reason.kind, 'made-here');
});

test('a made video whose post is gone is no upload that needs a post', () => {
  const made = anItem({ id: 'made', kind: 'video', madeFrom: 'https://blog.example/gone' });
  assert.deepEqual(pairTwins([made], [])[0]?.reason, { kind: 'post-is-gone' });
});

test('a post in the booth, and one whose video is being published, are in hand', () => {
  const post = anItem({ id: 'post', kind: 'post' });
  const inBooth = pairTwins([], [post], {
    ...noCircumstances,
    inBooth: new Map([['post', '2026-11-25']])
  });
  assert.deepEqual(inBooth[0]?.reason, { kind: 'in-the-booth', since: '2026-11-25' });
  const made = pairTwins([], [post], {
    ...noCircumstances,
    publishing: new Map([['post', 'under-way']])
  });
  assert.equal(made[0]?.standing, 'in-hand');
});

test('what the user paired stands together, and what the user refused does not', () => {
  const decided = (
    relation: 'twin' | 'several-videos' | 'several-posts' | 'none',
    v = 'a',
    p = 'p'
  ) => ({
    id: `${v} ${p}`,
    video: v,
    post: p,
    relation,
    titles: { video: 'Video a', post: 'Another title' },
    at: '2026-01-01T00:00:00.000Z'
  });
  const tied = { ...noCircumstances, ties: [decided('twin')] };
  const twin = only([video('a')], [post('p', { title: 'Another title' })], tied);
  assert.deepEqual([twin.standing, twin.reason], ['in-step', { kind: 'paired', relation: 'twin' }]);

  const shows = post('p', { embeds: ['https://video.example/embed/a'] });
  const apart = pairTwins([video('a')], [shows], { ...noCircumstances, ties: [decided('none')] });
  assert.deepEqual(apart.map((t) => t.standing).sort(), ['no-post', 'no-video']);

  const several = pairTwins([video('a'), video('b')], [post('p')], {
    ...noCircumstances,
    ties: [decided('several-videos'), decided('several-videos', 'b')]
  });
  assert.deepEqual(several.map((t) => [t.video?.id, t.post?.id]).sort(), [
    ['a', 'p'],
    ['b', 'p']
  ]);

  const besides = only([video('a')], [shows, post('q')], {
    ...noCircumstances,
    ties: [decided('several-posts', 'a', 'q')]
  });
  assert.deepEqual([besides.post?.id, besides.otherPosts], ['p', ['q']]);
  // A video that is gone leaves its post alone.
  assert.equal(only([], [post('p')], tied).standing, 'no-video');
});
