import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { anItem } from '../../testing.ts';
import { Comparer, weigh, withTitle } from './comparer.ts';
import { corpusOf } from './corpus.ts';
import { noLikeness, type Likeness } from './likeness.ts';
import type { ToldItem } from './told.ts';

const WARP =
  'Wind the madder warp, tie the cross, beam it slowly and thread four shafts before noon.';
const DYE =
  'Chalk, alum and rhubarb leaves give yellows; iron saddens each of them within minutes, and vinegar lifts the skein again.';

const aVideo = (title: string, text: string, more: object = {}): ToldItem => ({
  item: anItem({ id: `v ${title}`, kind: 'video', title, ...more }),
  text
});
const aPost = (title: string, text: string, more: object = {}): ToldItem => ({
  item: anItem({ id: `p ${title}`, kind: 'post', title, ...more }),
  text
});
/** Others, so that not every word is said by all. */
const rest = [aVideo('Spinning', 'Fleece and a wheel.'), aVideo('Felting', 'Soap and patience.')];

function compare(video: ToldItem, post: ToldItem): Likeness {
  const corpus = corpusOf([video, ...rest], [post]);
  const likeness = noLikeness();
  new Comparer(corpus).compare(
    weigh(corpus.videos[0]!, corpus),
    weigh(corpus.posts[0]!, corpus),
    likeness
  );
  return likeness;
}
const about = (number: number, expected: number) =>
  assert.ok(Math.abs(number - expected) < 1e-6, `${number} is not ${expected}`);

test('what says the same is as alike as can be', () => {
  const { titleInTitle, titleOfPost, texts, days } = compare(
    aVideo('Warping a loom', WARP, { published: '2021-03-01T00:00:00Z' }),
    aPost('Warping a loom', WARP, { published: '2021-03-04T12:00:00Z' })
  );
  for (const share of [titleInTitle, titleOfPost, texts]) about(share, 1);
  assert.equal(days, 3.5);
});

test('what shares nothing is not alike, and what says next to nothing cannot be told', () => {
  const { titles, titleInPost, titleInVideo, texts, names, figures, tags } = compare(
    aVideo('Warping a loom', WARP),
    aPost('Yellow', DYE)
  );
  for (const none of [titles, titleInPost, titleInVideo, texts, names, figures, tags])
    assert.equal(none, 0);
  assert.equal(compare(aVideo('Warping', 'A loom.'), aPost('Yellow', DYE)).texts, NaN);
});

test('a title is also looked for in what the other says, names and figures in both texts', () => {
  const alike = compare(
    aVideo('Cross', `${DYE} The mill of Orla has 36 shafts.`),
    aPost('Rhubarb', `${WARP} Nobody but Orla owns 36 of them.`)
  );
  assert.equal(alike.titles, 0);
  about(alike.titleInPost, 1);
  about(alike.titleInVideo, 1);
  assert.ok(alike.names > 0);
  assert.ok(alike.figures > 0);
});

test('parts, languages and pictures', () => {
  const picture = (url: string) => ({ pictures: [{ url, width: null, height: null }] });
  const { part, language, samePicture } = compare(
    aVideo('Loom, part 2', WARP, {
      language: 'en',
      ...picture('https://a.example/loom.jpg?size=2')
    }),
    aPost('Webstuhl, Teil zwei', DYE, {
      language: 'de',
      ...picture('https://a.example/loom-300x200.jpg')
    })
  );
  assert.deepEqual(
    { part, language, samePicture },
    {
      part: 'same',
      language: 'other',
      samePicture: true
    }
  );
  assert.equal(compare(aVideo('Loom 2/5', WARP), aPost('Loom 2/6', WARP)).part, 'other');
  assert.equal(compare(aVideo('Loom, part 2', WARP), aPost('Loom', WARP)).part, 'one');
});

const words = fc
  .array(fc.constantFrom('madder', 'weld', 'loom', 'reed', 'Orla', '36', 'selvedge', 'wool'), {
    maxLength: 20
  })
  .map((all) => all.join(' '));

test('whatever was compared before, a pair is as alike as by itself; shares are between 0 and 1', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(words, words), { minLength: 2, maxLength: 5 }), (told) => {
      const corpus = corpusOf(
        told.map(([title, text], i) => aVideo(`${title} ${i}`, text)),
        told.map(([text, title], i) => aPost(`${title} ${i}`, text))
      );
      const [videos, posts] = [corpus.videos, corpus.posts].map((all) =>
        all.map((one) => weigh(one, corpus))
      );
      const shared = new Comparer(corpus);
      for (const post of posts!)
        for (const video of videos!) {
          const [one, other] = [noLikeness(), noLikeness()];
          shared.compare(video, post, one);
          new Comparer(corpus).compare(video, post, other);
          assert.deepEqual(one, other);
          for (const share of [one.titleInTitle, one.titleOfPost, one.titleInPost])
            assert.ok(share >= 0 && share <= 1 + 1e-6);
        }
    })
  );
});

test('under another title it is as if it had been read with it', () => {
  const corpus = corpusOf([aVideo('Madder red', WARP), aVideo('Yellow', WARP)], [aPost('A', DYE)]);
  const [red, yellow] = corpus.videos;
  const weighed = withTitle(weigh(red!, corpus), { ...red!, title: yellow!.title }, corpus);
  const expected = weigh({ ...red!, title: yellow!.title }, corpus);
  assert.deepEqual(weighed.ids, expected.ids);
  assert.deepEqual(weighed.weights, expected.weights);
  about(weighed.titleWeight, expected.titleWeight);
  assert.equal(weighed.tagsEnd, expected.tagsEnd);
});
