import { median } from '../median.ts';

/** An item with what it gained so far. */
export interface Aged {
  id: string;
  /** Days since it came out. */
  age: number;
  total: number;
  /** Only items of the same group are held against each other: a kind at a place. */
  group: string;
}

export interface Compared {
  id: string;
  total: number;
  /** What items of its age have, as those nearest in age tell. */
  usual: number;
  /** The logarithm of its total over the usual one; 0 is as usual. */
  score: number;
  /** How far scores lie apart in its group: half of them lie within so much of the middle, times 1.48. */
  spread: number;
}

/** Fewer items of a kind at a place say nothing of what is usual. */
export const FEWEST_ITEMS = 8;
/** Items nearest in age that tell what is usual, at least. */
const NEAREST = 7;
const SHARE = 0.25;

/**
 * What each item gained beside what is usual for its age: the median of those nearest in age, itself left out. Groups
 * with too few items are left out.
 */
export function compareWithUsual(items: readonly Aged[]): Map<string, Compared> {
  const compared = new Map<string, Compared>();
  const groups = new Map<string, Aged[]>();
  for (const item of items) {
    if (item.age < 1) continue;
    const group = groups.get(item.group);
    if (group) group.push(item);
    else groups.set(item.group, [item]);
  }
  for (const group of groups.values()) {
    if (group.length < FEWEST_ITEMS) continue;
    const sorted = [...group].sort((a, b) => a.age - b.age);
    const logs = sorted.map(({ total }) => Math.log1p(total));
    const ages = sorted.map(({ age }) => Math.log(age));
    // A window grows with the group up to a point: what is usual changes along the years.
    const size = Math.min(41, Math.max(NEAREST, Math.round(SHARE * sorted.length)));
    const scores: Compared[] = [];
    let from = 0;
    for (const [i, { id, total }] of sorted.entries()) {
      // The window of the size + 1 nearest ages, this one among them, moves on with the age.
      while (
        from + size + 1 < sorted.length &&
        ages[from + size + 1]! - ages[i]! < ages[i]! - ages[from]!
      )
        from++;
      const near = logs.slice(from, from + size + 1);
      near.splice(i - from, 1);
      const usual = median(near);
      scores.push({ id, total, usual: Math.expm1(usual), score: logs[i]! - usual, spread: 0 });
    }
    const middle = median(scores.map(({ score }) => score));
    const spread = 1.4826 * median(scores.map(({ score }) => Math.abs(score - middle)));
    for (const one of scores) compared.set(one.id, { ...one, spread });
  }
  return compared;
}

/** At least twice what is usual, and further out than most lie. */
export const isBetterThanUsual = ({ score, spread }: Compared): boolean =>
  score > Math.log(2) && score > 1.5 * spread;

/** Old enough to be found, and hardly ever was. */
const FOUND_BY = 30;
export const wasNeverFound = ({ total, usual }: Compared, age: number): boolean =>
  age >= FOUND_BY && usual >= 10 && total < 0.2 * usual;
