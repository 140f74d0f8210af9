/**
 * A sum of regression trees over numbers, as boosting learns them: what one number means may depend on others. The nodes
 * of all trees lie in one list, each before the two below it.
 */
export interface Trees {
  bias: number;
  /** Where each tree begins. */
  roots: readonly number[];
  /** By node: the place of the number that is asked for, or -1 where a tree ends. */
  asks: readonly number[];
  /** By node: the edge that is asked about; of an end, the log-odds it adds. */
  edges: readonly number[];
  /** By node: where to go on if the number is above the edge. If it is not, or is NaN, the next node is it. */
  above: readonly number[];
}

interface Packed {
  roots: Int32Array;
  asks: Int16Array;
  edges: Float64Array;
  above: Int32Array;
}
const packed = new WeakMap<Trees, Packed>();

/**
 * Log-odds of what has these numbers.
 * @param numbers NaN stands for what is not known
 * @param least below which no further tree is asked: most of what there is falls below it soon
 */
export function scoreTrees(trees: Trees, numbers: Float64Array, least = -Infinity): number {
  let known = packed.get(trees);
  if (!known) {
    known = {
      roots: Int32Array.from(trees.roots),
      asks: Int16Array.from(trees.asks),
      edges: Float64Array.from(trees.edges),
      above: Int32Array.from(trees.above)
    };
    packed.set(trees, known);
  }
  const { roots, asks, edges, above } = known;
  let sum = trees.bias;
  for (let tree = 0; tree < roots.length && sum >= least; tree++) {
    let node = roots[tree]!;
    for (let asked = asks[node]!; asked >= 0; asked = asks[node]!)
      node = numbers[asked]! > edges[node]! ? above[node]! : node + 1;
    sum += edges[node]!;
  }
  return sum;
}
