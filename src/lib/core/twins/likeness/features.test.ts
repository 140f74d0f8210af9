import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { score } from '../../text/scorer.ts';
import { featuresOf, LikenessScorer } from './features.ts';
import { noLikeness, type Likeness } from './likeness.ts';
import { PAIR_MODEL } from './pairModel.ts';

const share = fc.double({ min: 0, max: 1, noNaN: true });
const sum = fc.double({ min: 0, max: 5, noNaN: true });
const likenesses: fc.Arbitrary<Likeness> = fc.record({
  titles: sum,
  titleInTitle: share,
  titleOfPost: share,
  titleInPost: share,
  titleInVideo: share,
  texts: fc.option(share, { nil: NaN }),
  names: sum,
  figures: sum,
  tags: sum,
  days: fc.option(fc.double({ min: -900, max: 900, noNaN: true }), { nil: NaN }),
  part: fc.constantFrom('same', 'other', 'one', 'none'),
  language: fc.constantFrom('same', 'other', 'unknown'),
  samePicture: fc.boolean()
});

test('a likeness scores as its features do', () => {
  const scorer = new LikenessScorer(PAIR_MODEL.alone);
  fc.assert(
    fc.property(likenesses, (likeness) => {
      const named = score(PAIR_MODEL.alone, featuresOf(likeness));
      assert.ok(Math.abs(scorer.score(likeness) - named) < 1e-9);
    })
  );
});

test('between two languages the same likeness is another feature', () => {
  const alike = { ...noLikeness(), names: 2, texts: 0.2, days: 3 };
  const same = featuresOf({ ...alike, language: 'same' });
  const other = featuresOf({ ...alike, language: 'other' });
  assert.ok(same.includes('names>1.8') && !other.includes('names>1.8'));
  // How far apart two came out means the same in any language.
  assert.ok(same.includes('days>1.1') && other.includes('days>1.1'));
});

test('what is not known is a feature of its own', () => {
  const features = featuresOf(noLikeness());
  assert.ok(features.includes('texts?') && features.includes('days?'));
});
