import { median } from '../median.ts';

/** An item with what it gained beside the usual, and what may have to do with it. */
export interface Judged {
  /** See `Compared`. */
  score: number;
  /** By dimension (lane, weekday …): the group that the item belongs to; absent where it has none. */
  groups: Readonly<Partial<Record<Dimension, string>>>;
}

export const DIMENSIONS = ['place', 'lane', 'weekday', 'time', 'length', 'form'] as const;
export type Dimension = (typeof DIMENSIONS)[number];

export interface GroupClaim {
  group: string;
  items: number;
  /** How much more (above 0) or less than usual its items have, drawn towards none: 0.25 is a quarter more. */
  effect: number;
  /** Bounds of the effect: nine of ten catalogues hold all of theirs, if groups differ as a normal distribution does. */
  low: number;
  high: number;
  /** Whether it can be told from chance: enough items, and both bounds on one side. */
  isClear: boolean;
}

export interface DimensionClaims {
  dimension: Dimension;
  /** Best first. Empty where there are too few items or groups to say anything. */
  groups: GroupClaim[];
  /** Items with a group in it. */
  items: number;
}

/** A group with fewer items is not spoken of. */
export const FEWEST_IN_GROUP = 5;
/** All groups together. */
const FEWEST_IN_ALL = 12;
/** Beyond that a single item tells no more: one success does not make a weekday. */
const FURTHEST = 2;
/** The bounds are moved apart by how many groups are looked at (Bonferroni). */
const TAIL = 0.1;

/**
 * Which groups do better or worse than the rest: means that are shrunk towards none by how far groups differ at all
 * (parametric empirical Bayes; Morris, JASA 78, 1983). Few items, or groups that differ no more than chance would have
 * it, lead to no claim.
 */
export function claimsOf(items: readonly Judged[]): DimensionClaims[] {
  return DIMENSIONS.map((dimension) => {
    const groups = new Map<string, number[]>();
    const grouped = items.flatMap((item) => {
      const group = item.groups[dimension];
      return group === undefined ? [] : [{ group, score: item.score }];
    });
    const middle = median(grouped.map(({ score }) => score));
    for (const { group, score } of grouped) {
      const centred = Math.max(-FURTHEST, Math.min(FURTHEST, score - middle));
      const scores = groups.get(group);
      if (scores) scores.push(centred);
      else groups.set(group, [centred]);
    }
    return { dimension, groups: compareGroups(groups), items: grouped.length };
  });
}

function compareGroups(groups: ReadonlyMap<string, readonly number[]>): GroupClaim[] {
  const large = [...groups].filter(([, scores]) => scores.length >= FEWEST_IN_GROUP);
  const all = large.flatMap(([, scores]) => scores);
  // A single group has nothing to be compared with.
  if (large.length < 2 || all.length < FEWEST_IN_ALL) return [];
  const within = large.reduce((sum, [, scores]) => sum + squares(scores, mean(scores)), 0);
  const variance = Math.max(within / Math.max(1, all.length - large.length), 1e-6);
  const whole = mean(all);
  // Between groups: what their means differ by beyond what the scores within them lead to (method of moments).
  const between = large.reduce((sum, [, s]) => sum + s.length * (mean(s) - whole) ** 2, 0);
  const weight = all.length - large.reduce((sum, [, s]) => sum + s.length ** 2, 0) / all.length;
  const differ = Math.max(0, (between - (large.length - 1) * variance) / weight);
  const reach = quantile(TAIL / 2 / large.length);
  return large
    .map(([group, scores]) => {
      const error = variance / scores.length;
      const share = differ / (differ + error);
      const effect = share * (mean(scores) - whole);
      const far = reach * Math.sqrt(share * error);
      return {
        group,
        items: scores.length,
        effect: Math.expm1(effect),
        low: Math.expm1(effect - far),
        high: Math.expm1(effect + far),
        isClear: share > 0 && (effect - far > 0 || effect + far < 0)
      };
    })
    .sort((a, b) => b.effect - a.effect);
}

const mean = (numbers: readonly number[]): number =>
  numbers.reduce((sum, n) => sum + n, 0) / Math.max(1, numbers.length);
const squares = (numbers: readonly number[], around: number): number =>
  numbers.reduce((sum, n) => sum + (n - around) ** 2, 0);

/**
 * How many standard deviations lie above all but a share of a normal distribution.
 * Abramowitz and Stegun, Handbook of Mathematical Functions, 26.2.23; off by less than 0.00045.
 */
function quantile(share: number): number {
  const t = Math.sqrt(-2 * Math.log(share));
  return (
    t -
    (2.515517 + 0.802853 * t + 0.010328 * t * t) /
      (1 + 1.432788 * t + 0.189269 * t * t + 0.001308 * t * t * t)
  );
}
