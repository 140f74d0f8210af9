import { chance } from '../../src/lib/core/text/scorer.ts';
import type { Trees } from '../../src/lib/core/text/trees.ts';

export interface Boosting {
  trees?: number;
  /** Ends of one tree. */
  leaves?: number;
  /** Share of what a tree has learned that is taken. */
  rate?: number;
  /** Fewest examples at an end. */
  fewest?: number;
  /** L2 penalty of what an end adds. */
  penalty?: number;
}

const BINS = 64;

interface Split {
  gain: number;
  column: number;
  /** Bins up to this one go to the left. */
  bin: number;
}
interface Leaf {
  rows: Int32Array;
  histogram: Float64Array;
  gradient: number;
  curvature: number;
  split: Split | null;
  node: Node;
}
interface Node {
  /** Log-odds, where the tree ends here. */
  value: number;
  below: { column: number; edge: number; low: Node; high: Node } | null;
}
const end = (): Node => ({ value: 0, below: null });

/**
 * Gradient boosting of regression trees with logistic loss (Friedman 2001), each tree grown end by end where it gains
 * most, by second derivatives (Chen and Guestrin 2016) summed in histograms.
 * @param columns by number: that of each example; NaN is what is not known, and less than all else
 * @param targets 0 or 1 of each example
 */
export function learnTrees(
  columns: readonly Float64Array[],
  targets: Float64Array,
  { trees = 180, leaves = 14, rate = 0.06, fewest = 40, penalty = 5 }: Boosting = {}
): Trees {
  const edges = columns.map(edgesOf);
  const bins = columns.map((column, i) => binsIn(column, edges[i]!));
  const share = targets.reduce((sum, target) => sum + target, 0) / targets.length;
  const bias = round(Math.log(share / (1 - share)));
  const scores = new Float64Array(targets.length).fill(bias);
  const gradients = new Float64Array(targets.length);
  const curvatures = new Float64Array(targets.length);

  const leafOf = (rows: Int32Array, histogram: Float64Array, node: Node): Leaf => {
    let [gradient, curvature] = [0, 0];
    for (const row of rows) {
      gradient += gradients[row]!;
      curvature += curvatures[row]!;
    }
    const leaf = { rows, histogram, gradient, curvature, split: null, node };
    return { ...leaf, split: bestSplit(leaf) };
  };
  const histogramOf = (rows: Int32Array): Float64Array => {
    const sums = new Float64Array(columns.length * BINS * 3);
    for (let c = 0; c < columns.length; c++) {
      const own = bins[c]!;
      for (const row of rows) {
        const at = (c * BINS + own[row]!) * 3;
        sums[at]! += gradients[row]!;
        sums[at + 1]! += curvatures[row]!;
        sums[at + 2]! += 1;
      }
    }
    return sums;
  };
  const worth = (gradient: number, curvature: number) => gradient ** 2 / (curvature + penalty);
  const bestSplit = ({ rows, histogram, gradient, curvature }: Leaf): Split | null => {
    let best: Split | null = null;
    const whole = worth(gradient, curvature);
    for (let c = 0; c < columns.length; c++) {
      let [g, h, n] = [0, 0, 0];
      for (let bin = 0; bin < edges[c]!.length; bin++) {
        const at = (c * BINS + bin) * 3;
        g += histogram[at]!;
        h += histogram[at + 1]!;
        n += histogram[at + 2]!;
        if (n < fewest) continue;
        if (rows.length - n < fewest) break;
        const gain = worth(g, h) + worth(gradient - g, curvature - h) - whole;
        if (gain > (best?.gain ?? LEAST_GAIN)) best = { gain, column: c, bin };
      }
    }
    return best;
  };

  const made: Node[] = [];
  for (let tree = 0; tree < trees; tree++) {
    for (let i = 0; i < targets.length; i++) {
      const likely = chance(scores[i]!);
      gradients[i] = targets[i]! - likely;
      curvatures[i] = likely * (1 - likely);
    }
    const rows = Int32Array.from(targets, (_, i) => i);
    const root = end();
    const ends = [leafOf(rows, histogramOf(rows), root)];
    while (ends.length < leaves) {
      const leaf = ends.reduce((a, b) => ((b.split?.gain ?? 0) > (a.split?.gain ?? 0) ? b : a));
      if (!leaf.split) break;
      const { column, bin } = leaf.split;
      const own = bins[column]!;
      const low = leaf.rows.filter((row) => own[row]! <= bin);
      const high = leaf.rows.filter((row) => own[row]! > bin);
      const isLowFewer = low.length < high.length;
      const fewer = histogramOf(isLowFewer ? low : high);
      const more = leaf.histogram.map((sum, i) => sum - fewer[i]!);
      const [ofLow, ofHigh] = isLowFewer ? [fewer, more] : [more, fewer];
      const below = { column, edge: edges[column]![bin]!, low: end(), high: end() };
      leaf.node.below = below;
      const parts = [leafOf(low, ofLow, below.low), leafOf(high, ofHigh, below.high)];
      ends.splice(ends.indexOf(leaf), 1, ...parts);
    }
    for (const { rows: ended, gradient, curvature, node } of ends) {
      node.value = round((rate * gradient) / (curvature + penalty));
      for (const row of ended) scores[row]! += node.value;
    }
    made.push(root);
  }
  return flat(bias, made);
}
const LEAST_GAIN = 1e-6;

const round = (number: number): number => Math.round(number * 1000) / 1000;

/** Below all numbers that a column has, and what JSON can tell. */
const LOWEST = -1e9;

/**
 * Edges of the bins of a column, that have about as many examples each. What is not known is not above the lowest.
 */
function edgesOf(column: Float64Array): number[] {
  const sorted = column.filter((number) => !Number.isNaN(number)).sort();
  const most = BINS - 2;
  const edges = new Set(sorted.length < column.length ? [LOWEST] : []);
  const distinct = new Set(sorted);
  if (distinct.size <= most) for (const number of distinct) edges.add(number);
  else
    for (let bin = 1; bin < most; bin++) {
      const at = Math.floor((bin * sorted.length) / most);
      edges.add(Number(((sorted[at]! + sorted[at - 1]!) / 2).toPrecision(4)));
    }
  return [...edges].sort((a, b) => a - b);
}

/** How many edges each number is above. */
function binsIn(column: Float64Array, edges: readonly number[]): Uint8Array {
  return Uint8Array.from(column, (number) => {
    let [low, high] = [0, edges.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (number > edges[middle]!) low = middle + 1;
      else high = middle;
    }
    return low;
  });
}

/** Trees as one list of nodes. */
function flat(bias: number, roots: readonly Node[]): Trees {
  const made = { bias, roots: [], asks: [], edges: [], above: [] } as {
    [key in keyof Trees]: key extends 'bias' ? number : number[];
  };
  const add = ({ value, below }: Node): void => {
    const at = made.asks.push(below ? below.column : -1) - 1;
    made.edges.push(below ? below.edge : value);
    made.above.push(0);
    if (!below) return;
    add(below.low);
    made.above[at] = made.asks.length;
    add(below.high);
  };
  for (const root of roots) {
    made.roots.push(made.asks.length);
    add(root);
  }
  return made;
}
