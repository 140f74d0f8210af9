import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { anItem } from '../../testing.ts';
import { CandidateFinder, only, type Candidates, type Wanted } from './candidates.ts';
import { corpusOf } from './corpus.ts';
import type { ToldItem } from './told.ts';

interface Given {
  title: string;
  published?: string | null;
}
const told =
  (kind: 'video' | 'post') =>
  ({ title, published = null }: Given, at: number): ToldItem => ({
    item: anItem({ id: `${kind}${at}`, kind, title, published, language: 'en' }),
    text: ''
  });
const ALL: Wanted = () => true;

function find(videos: readonly Given[], posts: readonly Given[], isWanted = ALL): string[] {
  const corpus = corpusOf(videos.map(told('video')), posts.map(told('post')));
  return shown(new CandidateFinder(corpus).find(isWanted));
}
const shown = ({ videos, posts }: Candidates): string[] =>
  Array.from(videos, (video, i) => `v${video} p${posts[i]}`);

test('what shares rare words is compared, what shares none is not', () => {
  const found = find(
    [{ title: 'Winding a silk warp' }, { title: 'Mending the reed' }],
    [{ title: 'A reed, mended' }, { title: 'On silk' }]
  );
  assert.deepEqual(found, ['v1 p0', 'v0 p1']);
});

test('what came out within a month of each other is compared, whatever it says', () => {
  const found = find(
    [
      { title: 'Silk', published: '2024-03-01T00:00:00Z' },
      { title: 'Wool', published: '2023-01-01T00:00:00Z' }
    ],
    [{ title: 'Dyeing', published: '2024-03-20T00:00:00Z' }]
  );
  assert.deepEqual(found, ['v0 p0']);
});

test('each pair is found once, post by post, and none that is not wanted', () => {
  const given = fc.record({
    title: fc.subarray(['silk', 'wool', 'reed', 'heddle', 'twill']).map((words) => words.join(' ')),
    published: fc.constantFrom(null, '2024-03-01T00:00:00Z', '2024-03-09T00:00:00Z')
  });
  const isWanted: Wanted = (video, post) => (video + post) % 3 !== 0;
  fc.assert(
    fc.property(
      fc.array(given, { maxLength: 8 }),
      fc.array(given, { maxLength: 8 }),
      (videos, posts) => {
        const all = find(videos, posts);
        assert.equal(new Set(all).size, all.length);
        const ofPosts = all.map((pair) => Number(pair.split(' p')[1]));
        assert.deepEqual(
          ofPosts,
          [...ofPosts].sort((a, b) => a - b)
        );
        const wanted = all.filter((pair) => {
          const [video, post] = pair.slice(1).split(' p').map(Number);
          return isWanted(video!, post!);
        });
        assert.deepEqual(find(videos, posts, isWanted), wanted);
      }
    )
  );
});

test('of candidates only those that are wanted are left, each video with its post', () => {
  const all = { videos: Int32Array.of(0, 1, 2), posts: Int32Array.of(5, 5, 7) };
  assert.deepEqual(shown(only(all, (video, post) => video !== 1 && post > 4)), ['v0 p5', 'v2 p7']);
});
