/**
 * A linear model over named features: what was learned of each, and nothing else. Log-odds add up, so
 * that a score can be explained by the features that made it.
 */
export interface Scorer {
  bias: number;
  /** Log-odds by the name of a feature; what is not here counts nothing. */
  weights: Readonly<Record<string, number>>;
}

const lookups = new WeakMap<Scorer, ReadonlyMap<string, number>>();

/** Log-odds of what has these features. */
export function score(scorer: Scorer, features: Iterable<string>): number {
  let weights = lookups.get(scorer);
  if (!weights) {
    weights = new Map(Object.entries(scorer.weights));
    lookups.set(scorer, weights);
  }
  let sum = scorer.bias;
  for (const feature of features) sum += weights.get(feature) ?? 0;
  return sum;
}

export const chance = (logOdds: number): number => 1 / (1 + Math.exp(-logOdds));

/** The feature `name` at the highest of the edges that a value reaches: `binned('long', 7, [3, 6])` is `long>6`. */
export function binned(name: string, value: number, edges: readonly number[]): string {
  let bin = '';
  for (const edge of edges) if (value > edge) bin = String(edge);
  return `${name}>${bin}`;
}

/** The features of all bins of one name, lowest first: that of a value is at `binOf`. */
export const binNames = (name: string, edges: readonly number[]): string[] => [
  binned(name, -Infinity, edges),
  ...edges.map((edge) => binned(name, edge + 1e-9, edges))
];

/** How many edges a value is above. */
export function binOf(value: number, edges: readonly number[]): number {
  let bin = 0;
  while (bin < edges.length && value > edges[bin]!) bin++;
  return bin;
}
