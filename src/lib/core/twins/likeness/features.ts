import { binNames, binOf, type Scorer } from '../../text/scorer.ts';
import type { Likeness } from './likeness.ts';

const SHARES = [0, 0.15, 0.3, 0.45, 0.6, 0.75, 0.9, 0.99];
const COSINES = [0.01, 0.03, 0.06, 0.1, 0.15, 0.22, 0.32, 0.45];
const SUMS = [0.1, 0.4, 0.8, 1.2, 1.8, 2.6];
const DAYS = [-400, -60, -8, -1.1, 1.1, 4, 9, 16, 31, 90, 400];

/** A number as a feature: the bin that it falls into, or that it is not known. */
interface Binned {
  edges: readonly number[];
  of: (likeness: Likeness) => number;
  names: readonly string[];
  /** Between two languages the same words mean something else, and names more. */
  otherNames: readonly string[];
  unknown: string;
}

const binned = (
  name: string,
  edges: readonly number[],
  of: Binned['of'],
  otherName = name
): Binned => ({
  edges,
  of,
  names: binNames(name, edges),
  otherNames: binNames(otherName, edges),
  unknown: `${name}?`
});
const byLanguage = (name: string, edges: readonly number[], of: Binned['of']): Binned =>
  binned(name, edges, of, `x:${name}`);

const BINNED: readonly Binned[] = [
  byLanguage('titles', SUMS, (l) => l.titles),
  byLanguage('title in title', SHARES, (l) => l.titleInTitle),
  byLanguage('title of post', SHARES, (l) => l.titleOfPost),
  byLanguage('title in post', SHARES, (l) => l.titleInPost),
  byLanguage('title in video', SHARES, (l) => l.titleInVideo),
  byLanguage('texts', COSINES, (l) => l.texts),
  byLanguage('names', SUMS, (l) => l.names),
  byLanguage('figures', SUMS, (l) => l.figures),
  binned('tags', SUMS, (l) => l.tags),
  binned('days', DAYS, (l) => l.days)
];
const PARTS = { same: 'part same', other: 'part other', one: 'part one', none: 'part none' };
const LANGUAGES = {
  same: 'language same',
  other: 'language other',
  unknown: 'language unknown'
};
const SAME_PICTURE = 'same picture';

/** A likeness as features of the models that are learned on pairs. */
export function featuresOf(likeness: Likeness): string[] {
  const features = BINNED.map(({ edges, of, names, otherNames, unknown }) => {
    const number = of(likeness);
    if (Number.isNaN(number)) return unknown;
    return (likeness.language === 'other' ? otherNames : names)[binOf(number, edges)]!;
  });
  features.push(PARTS[likeness.part], LANGUAGES[likeness.language]);
  if (likeness.samePicture) features.push(SAME_PICTURE);
  return features;
}

/** Scores likenesses as `score` does their features, without naming these: hundreds of thousands are asked. */
export class LikenessScorer {
  readonly #bias: number;
  readonly #binned: readonly {
    edges: readonly number[];
    of: Binned['of'];
    weights: Float64Array;
    otherWeights: Float64Array;
    unknown: number;
  }[];
  readonly #parts: Record<Likeness['part'], number>;
  readonly #languages: Record<Likeness['language'], number>;
  readonly #samePicture: number;

  constructor({ bias, weights }: Scorer) {
    const weightOf = (feature: string): number => weights[feature] ?? 0;
    this.#bias = bias;
    this.#binned = BINNED.map(({ edges, of, names, otherNames, unknown }) => ({
      edges,
      of,
      weights: Float64Array.from(names, weightOf),
      otherWeights: Float64Array.from(otherNames, weightOf),
      unknown: weightOf(unknown)
    }));
    const { same, other, one, none } = PARTS;
    this.#parts = {
      same: weightOf(same),
      other: weightOf(other),
      one: weightOf(one),
      none: weightOf(none)
    };
    this.#languages = {
      same: weightOf(LANGUAGES.same),
      other: weightOf(LANGUAGES.other),
      unknown: weightOf(LANGUAGES.unknown)
    };
    this.#samePicture = weightOf(SAME_PICTURE);
  }

  /** Log-odds. */
  score(likeness: Likeness): number {
    let sum = this.#bias + this.#parts[likeness.part] + this.#languages[likeness.language];
    if (likeness.samePicture) sum += this.#samePicture;
    const isOther = likeness.language === 'other';
    for (const { edges, of, weights, otherWeights, unknown } of this.#binned) {
      const number = of(likeness);
      if (Number.isNaN(number)) sum += unknown;
      else sum += (isOther ? otherWeights : weights)[binOf(number, edges)]!;
    }
    return sum;
  }
}
