import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { anItem } from '../../testing.ts';
import { compareAll } from './compareAll.ts';
import { corpusOf } from './corpus.ts';

const words = ['madder', 'weld', 'loom', 'reed', 'Orla', '36', 'selvedge', 'wool', 'hem', 'flax'];
const text = fc.array(fc.constantFrom(...words), { maxLength: 12 }).map((all) => all.join(' '));
const items = fc.array(fc.tuple(text, text, fc.option(fc.integer({ min: 1, max: 28 }))), {
  minLength: 1,
  maxLength: 8
});

const corpusIn = fc.tuple(items, items).map((sides) => {
  const [videos, posts] = sides.map((all, side) =>
    all.map(([title, text, day], i) => {
      const kind = side === 0 ? 'video' : 'post';
      const published = day === null ? null : new Date(Date.UTC(2021, 1, day)).toISOString();
      return { item: anItem({ id: `${kind}-${i}`, kind, title, published }), text };
    })
  );
  return corpusOf(videos!, posts!);
});
const refusesNone = () => undefined;
const keyOf = ({ video, post }: { video: number; post: number }) => `${video} ${post}`;

test('no pair is compared twice, and those that may come to anything are some of all', () => {
  fc.assert(
    fc.property(corpusIn, (corpus) => {
      const all = compareAll(corpus, refusesNone, { keeps: 'all' }).map(keyOf);
      assert.equal(new Set(all).size, all.length);
      for (const pair of compareAll(corpus, refusesNone)) assert.ok(all.includes(keyOf(pair)));
    })
  );
});

test('of those with the same title and the same words each is compared with its own, and likelier than others', () => {
  const subjects = ['madder vat', 'flax retting', 'reed hooks', 'selvedge cord', 'loom bench'];
  const told = (kind: 'video' | 'post') =>
    subjects.map((title, i) => ({
      item: anItem({ id: `${kind}-${i}`, kind, title, published: null }),
      text: `${title} with ${words[i]!} and ${words[i + 5]!}`
    }));
  const all = compareAll(corpusOf(told('video'), told('post')), refusesNone);
  for (const own of subjects.keys()) {
    const of = all.filter(({ video }) => video === own).sort((a, b) => b.beside - a.beside);
    assert.equal(of[0]?.post, own);
    assert.ok(of.slice(1).every(({ beside }) => beside < of[0]!.beside - 1));
  }
});

test('what was refused is not compared, whatever it has in common', () => {
  fc.assert(
    fc.property(corpusIn, fc.nat(7), fc.nat(7), (corpus, video, post) => {
      const refused = (id: string) =>
        id === `video-${video}` ? new Set([`post-${post}`]) : undefined;
      const expected = compareAll(corpus, refusesNone, { keeps: 'all' })
        .map(keyOf)
        .filter((key) => key !== `${video} ${post}`);
      const left = compareAll(corpus, refused, { keeps: 'all' }).map(keyOf);
      assert.deepEqual(left.sort(), expected.sort());
    })
  );
});
