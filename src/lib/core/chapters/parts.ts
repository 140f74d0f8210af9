import { AXES, BETWEEN, type Point } from './topicSpace.ts';

/** A sentence as the search for parts sees it. */
export interface Unit {
  stems: readonly string[];
  /** Null where the language has no word vectors. */
  point: Point | null;
}

/** How much each kind of evidence counts; all are log-likelihoods before they are weighed. */
export interface PartWeights {
  /** Repetition of words. */
  lexical: number;
  /** Nearness of meaning. */
  topical: number;
  /** Variance of the parts' means, against that of the files it was learned from. */
  spread: number;
  /** Prior count of all words together: the higher, the less a repeated word tells. */
  concentration: number;
  /** Axes of the topic space that are looked at, the most telling first. */
  axes: number;
  /** Share of a word's own rate, against an equal rate of all, in that prior. */
  ownRate: number;
}

export interface PartSearch {
  weights: PartWeights;
  /** Log-odds of a part beginning at each unit, other than by cohesion. */
  begins: readonly number[];
  /** Log prior of a part from one unit up to, not including, another. */
  length(from: number, to: number): number;
  /** Most units in a part. */
  most: number;
  /** Number of parts, where it is given. */
  count?: number;
}

export interface Parts {
  /** Index of the first unit of each part; the first is 0. */
  starts: number[];
  /** Probability, 0 to 1, that a part begins at each unit. */
  turns: number[];
}

/** Parts that are weighed: all those of a text of 1,400 units. */
const MOST_SCORES = 1_400 ** 2;

/**
 * Divides a text where it turns. Each part has a distribution of words of its own (a Dirichlet
 * prior, as in Eisenstein and Barzilay 2008) and a mean in the topic space of its own (a Gaussian
 * prior, as in probabilistic linear discriminant analysis; Ioffe 2006). The division with the
 * greatest sum of marginal likelihoods, beginnings and length priors is found by dynamic
 * programming; time grows with units × `most`. Of more than 1,400 units, parts are looked for up to a size
 * that keeps time and memory within those of 1,400.
 */
export function findParts(units: readonly Unit[], search: PartSearch): Parts {
  const n = units.length;
  if (n === 0) return { starts: [], turns: [] };
  const most = Math.min(n, Math.max(1, search.most), Math.ceil(MOST_SCORES / n));
  const scores = scoreParts(units, most, search);
  const starts = search.count
    ? bestOfCount(scores, n, most, Math.min(search.count, n))
    : best(scores, n, most);
  return { starts, turns: turnOdds(scores, n, most) };
}

/** Score of every part: row `from`, column its length less one. */
function scoreParts(units: readonly Unit[], most: number, search: PartSearch): Float64Array {
  const n = units.length;
  const scores = new Float64Array(n * most);
  const { ids, prior, total } = wordPriors(units, search.weights);
  const { lexical, topical, spread } = search.weights;
  const axes = Math.min(AXES, search.weights.axes);
  const between = BETWEEN.map((b) => b * spread);
  const counts = new Int32Array(prior.length);
  const sum = new Float64Array(AXES);
  for (let from = 0; from < n; from++) {
    let words = 0;
    let repeats = 0;
    let weight = 0;
    sum.fill(0);
    const last = Math.min(n, from + most);
    for (let to = from + 1; to <= last; to++) {
      // Logarithms are dear, so each sentence takes one of a product.
      let ratio = 1;
      for (const id of ids[to - 1] ?? []) {
        const alpha = prior[id] ?? 1;
        const count = counts[id] ?? 0;
        ratio *= ((count + alpha) * total) / ((words + total) * alpha);
        counts[id] = count + 1;
        words++;
      }
      repeats += Math.log(ratio);
      const point = units[to - 1]?.point;
      let meaning = 0;
      if (point) {
        weight += point.weight;
        let widths = 1;
        for (let a = 0; a < axes; a++) {
          const x = (sum[a] as number) + point.weight * (point.values[a] as number);
          sum[a] = x;
          const t = between[a] as number;
          const width = 1 + weight * t;
          meaning += (t * x * x) / width;
          widths *= width;
        }
        meaning -= Math.log(widths);
      }
      scores[from * most + to - from - 1] =
        lexical * repeats +
        (topical * meaning) / 2 +
        (from > 0 ? (search.begins[from] ?? 0) : 0) +
        search.length(from, to);
    }
    for (let k = from; k < last; k++) for (const id of ids[k] ?? []) counts[id] = 0;
  }
  return scores;
}

function wordPriors(units: readonly Unit[], { concentration, ownRate }: PartWeights) {
  const index = new Map<string, number>();
  const uses: number[] = [];
  let all = 0;
  const ids = units.map(({ stems }) =>
    stems.map((stem) => {
      const id = index.get(stem) ?? index.size;
      index.set(stem, id);
      uses[id] = (uses[id] ?? 0) + 1;
      all++;
      return id;
    })
  );
  const prior = uses.map((use) => {
    return concentration * ((ownRate * use) / all + (1 - ownRate) / uses.length);
  });
  return { ids, prior, total: concentration };
}

function best(scores: Float64Array, n: number, most: number): number[] {
  const sums = new Float64Array(n + 1).fill(-Infinity);
  const from = new Int32Array(n + 1);
  sums[0] = 0;
  for (let to = 1; to <= n; to++) {
    for (let start = Math.max(0, to - most); start < to; start++) {
      const sum = (sums[start] ?? 0) + (scores[start * most + to - start - 1] ?? 0);
      if (sum > (sums[to] ?? 0)) {
        sums[to] = sum;
        from[to] = start;
      }
    }
  }
  const starts: number[] = [];
  for (let to = n; to > 0; to = from[to] ?? 0) starts.push(from[to] ?? 0);
  return starts.reverse();
}

function bestOfCount(scores: Float64Array, n: number, most: number, count: number): number[] {
  // A part may need to be longer than is usual when few are wanted.
  const least = Math.ceil(n / most);
  const parts = Math.max(count, least);
  const rows = Array.from({ length: parts + 1 }, () => new Float64Array(n + 1).fill(-Infinity));
  const from = Array.from({ length: parts + 1 }, () => new Int32Array(n + 1));
  const origin = rows[0];
  if (origin) origin[0] = 0;
  for (let k = 1; k <= parts; k++) {
    const [before, now, back] = [rows[k - 1], rows[k], from[k]];
    if (!before || !now || !back) continue;
    for (let to = k; to <= n; to++) {
      for (let start = Math.max(k - 1, to - most); start < to; start++) {
        const sum = (before[start] ?? 0) + (scores[start * most + to - start - 1] ?? 0);
        if (sum > (now[to] ?? 0)) {
          now[to] = sum;
          back[to] = start;
        }
      }
    }
  }
  const starts: number[] = [];
  for (let k = parts, to = n; k > 0; k--) {
    to = from[k]?.[to] ?? 0;
    starts.push(to);
  }
  return starts.reverse();
}

/** Softens the probabilities, the evidence of neighbouring sentences not being independent. */
const TEMPERATURE = 3;

function turnOdds(scores: Float64Array, n: number, most: number): number[] {
  const ahead = new Float64Array(n + 1).fill(-Infinity);
  const behind = new Float64Array(n + 1).fill(-Infinity);
  ahead[0] = 0;
  behind[n] = 0;
  const add = (a: number, b: number) =>
    a === -Infinity ? b : Math.max(a, b) + Math.log1p(Math.exp(-Math.abs(a - b)));
  const score = (from: number, to: number) =>
    (scores[from * most + to - from - 1] ?? 0) / TEMPERATURE;
  for (let to = 1; to <= n; to++)
    for (let from = Math.max(0, to - most); from < to; from++)
      ahead[to] = add(ahead[to] ?? 0, (ahead[from] ?? 0) + score(from, to));
  for (let from = n - 1; from >= 0; from--)
    for (let to = Math.min(n, from + most); to > from; to--)
      behind[from] = add(behind[from] ?? 0, (behind[to] ?? 0) + score(from, to));
  const all = ahead[n] ?? 0;
  return Array.from({ length: n }, (_, i) =>
    Math.min(1, Math.exp((ahead[i] ?? 0) + (behind[i] ?? 0) - all))
  );
}
