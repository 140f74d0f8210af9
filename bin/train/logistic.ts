import type { Scorer } from '../../src/lib/core/text/scorer.ts';
import { chance } from '../../src/lib/core/text/scorer.ts';

export interface Example {
  features: readonly string[];
  /** 0 or 1, or anything between where judges may differ. */
  target: number;
  weight?: number;
  /** Of one talk: a feature that few talks have is not learned. */
  group: string;
}

export interface Learning {
  /** Fewest groups in which a feature must be seen. */
  groups?: number;
  epochs?: number;
  rate?: number;
  /** L2 penalty an example. */
  decay?: number;
  /** Weights nearer to nothing are dropped. */
  least?: number;
}

/**
 * Logistic regression over named features: AdaGrad (Duchi, Hazan and Singer 2011) with an L2 penalty,
 * weights averaged over the second half of the passes. Examples are taken in an order that does not
 * depend on chance.
 */
export function learnLogistic(
  examples: readonly Example[],
  { groups = 3, epochs = 12, rate = 0.08, decay = 2e-4, least = 0.02 }: Learning = {}
): Scorer {
  const seen = new Map<string, Set<string>>();
  for (const { features, group } of examples)
    for (const f of features) {
      const known = seen.get(f);
      if (known) known.add(group);
      else seen.set(f, new Set([group]));
    }
  const ids = new Map<string, number>();
  for (const [f, g] of seen) if (g.size >= groups) ids.set(f, ids.size);
  const rows = examples.map(({ features, target, weight = 1 }) => ({
    target,
    weight,
    ids: Int32Array.from(features.flatMap((f) => ids.get(f) ?? []))
  }));
  const w = new Float64Array(ids.size);
  const sums = new Float64Array(ids.size);
  const squares = new Float64Array(ids.size).fill(1);
  let [bias, biasSum, biasSquare, averaged] = [0, 0, 1, 0];
  let state = 1;
  const order = rows.map((_, i) => i);
  for (let epoch = 0; epoch < epochs; epoch++) {
    for (let i = order.length - 1; i > 0; i--) {
      state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
      const j = Math.floor((state / 2 ** 32) * (i + 1));
      [order[i], order[j]] = [order[j]!, order[i]!];
    }
    for (const at of order) {
      const row = rows[at]!;
      let sum = bias;
      for (const id of row.ids) sum += w[id]!;
      const error = row.weight * (chance(sum) - row.target);
      biasSquare += error * error;
      bias -= (4 * rate * error) / Math.sqrt(biasSquare);
      for (const id of row.ids) {
        const gradient = error + decay * row.ids.length * w[id]!;
        squares[id]! += gradient * gradient;
        w[id]! -= (rate * gradient) / Math.sqrt(squares[id]!);
      }
    }
    if (epoch >= epochs / 2) {
      averaged++;
      biasSum += bias;
      for (let k = 0; k < w.length; k++) sums[k]! += w[k]!;
    }
  }
  const weights: Record<string, number> = {};
  for (const [f, id] of ids) {
    const rounded = Math.round((sums[id]! / averaged) * 100) / 100;
    if (Math.abs(rounded) >= least) weights[f] = rounded;
  }
  return { bias: Math.round((biasSum / averaged) * 1000) / 1000, weights };
}

/** Chance that one taken from those that are is scored above one from those that are not. */
export function auc(scored: readonly { score: number; is: boolean }[]): number {
  const sorted = [...scored].sort((a, b) => a.score - b.score);
  let [ranks, yes] = [0, 0];
  for (const [i, s] of sorted.entries())
    if (s.is) {
      ranks += i + 1;
      yes++;
    }
  const no = sorted.length - yes;
  return (ranks - (yes * (yes + 1)) / 2) / Math.max(1, yes * no);
}
