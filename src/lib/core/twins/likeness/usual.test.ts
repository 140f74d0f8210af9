import assert from 'node:assert/strict';
import { test } from 'node:test';
import { anItem } from '../../testing.ts';
import type { Compared } from './compared.ts';
import { corpusOf } from './corpus.ts';
import { aPair } from './testing.ts';
import type { ToldItem } from './told.ts';
import { usualBetween } from './usual.ts';

const items = (kind: 'video' | 'post', places: readonly string[]): ToldItem[] =>
  places.map((placeId, i) => ({
    item: anItem({ id: `${kind}-${i}`, kind, placeId, title: `The ${i}th of them` }),
    text: ''
  }));
const oneChannel = Array.from({ length: 10 }, () => 'channel');
const oneBlog = Array.from({ length: 8 }, () => 'blog');

function usualOf(all: readonly Compared[], videos = oneChannel, posts = oneBlog) {
  const corpus = corpusOf(items('video', videos), items('post', posts));
  return usualBetween(all, corpus.videos, corpus.posts);
}

const clear = (at: number, days: number, titleInTitle = 0.5): Compared =>
  aPair(at, at, { alone: 3, likeness: { days, titleInTitle, texts: NaN } });

test('what clear pairs are like is what is usual', () => {
  const all = [1, 2, 2, 3, 30].map((days, at) => clear(at, days, at / 4));
  const usual = usualOf(all)(all[0]!);
  assert.equal(usual.share, 5 / 8);
  assert.equal(usual.days, 2);
  assert.equal(usual.spread, 1);
  assert.equal(usual.titleInTitle, 0.5);
  assert.ok(Number.isNaN(usual.texts));
});

test('pairs that are unlikely, or that something else comes before, tell nothing', () => {
  const all = [1, 2, 2, 3, 30].map((days, at) => clear(at, days));
  const others = [
    aPair(5, 5, { alone: 0.5, likeness: { days: 100 } }),
    aPair(6, 6, { alone: 3, ofVideo: 4, likeness: { days: 100 } }),
    aPair(7, 7, { alone: 3, ofPost: 4, likeness: { days: 100 } }),
    aPair(8, 4, { alone: 3, isOfAnother: true, likeness: { days: 100 } })
  ];
  assert.deepEqual(usualOf([...all, ...others])(others[0]!), usualOf(all)(all[0]!));
});

test('of few clear pairs only their share is told, of none that there are none', () => {
  const all = [clear(0, 1), clear(1, 2)];
  const few = usualOf(all)(all[0]!);
  assert.equal(few.share, 2 / 8);
  assert.ok([few.days, few.spread, few.titleInTitle].every(Number.isNaN));
  const none = aPair(0, 0, { alone: -1 });
  assert.equal(usualOf([none])(none).share, 0);
});

test('each channel has its own usage with each blog', () => {
  const videos = oneChannel.map((_, at) => (at < 5 ? 'first' : 'second'));
  const posts = Array.from({ length: 10 }, () => 'blog');
  const all = videos.map((_, at) => clear(at, at < 5 ? 1 : 40));
  const usual = usualOf(all, videos, posts);
  assert.equal(usual(all[0]!).days, 1);
  assert.equal(usual(all[9]!).days, 40);
  assert.equal(usual(all[9]!).share, 1);
});
