import type { Talk } from '../text/talk.ts';
import { binned } from '../text/scorer.ts';
import { signpostOdds } from '../lang/en/signposts.ts';
import type { Point } from './topicSpace.ts';

/** Sentences on either side over which cohesion is looked at. */
const WIDTHS = [2, 5, 9, 15] as const;

/**
 * What there is to know of each sentence start as one where a talk may turn, as names of features.
 * @param points the sentences in the topic space
 */
export function turnFeatures(talk: Talk, points: readonly Point[]): string[][] {
  const { sentences } = talk;
  const n = sentences.length;
  const bare = sentences.map(({ from, to }) => talk.plain.slice(from, to).filter(Boolean));
  const sums = sumsOf(points);
  const shared = sharedTerms(talk);
  const uses = usesOf(talk);
  const gaps = sentences.map((s, i) => (i === 0 ? 0 : s.start - (sentences[i - 1]?.end ?? 0)));
  const usualGap = Math.max(0.3, [...gaps].sort((a, b) => a - b)[n >> 1] ?? 0);
  const end = sentences.at(-1)?.end ?? 0;
  return sentences.map((sentence, i) => {
    const words = bare[i] ?? [];
    const before = bare[i - 1] ?? [];
    const features = [
      ...headsOf('head', words),
      ...headsOf('next head', bare[i + 1] ?? []),
      ...headsOf('before head', before),
      ...[...new Set(words)].map((w) => `word:${w}`),
      ...[...new Set(before)].map((w) => `before:${w}`),
      ...pairsOf('pair', words),
      `end:${before.at(-1) ?? ''}`,
      `ends:${before.slice(-2).join(' ')}`,
      `tags:${talk.tags.slice(sentence.from, sentence.from + 3).join(' ')}`,
      binned('long', words.length, [3, 6, 10, 16, 24]),
      binned('long before', before.length, [3, 6, 10, 16, 24]),
      binned('signpost', signpostOdds(words.join(' '), before.join(' ')), [0, 0.5, 1, 1.7, 2.3]),
      binned('pause', (gaps[i] ?? 0) / usualGap, [0.5, 1, 1.6, 2.5, 4, 7]),
      binned('part', sentence.start / Math.max(1, end), [0.03, 0.08, 0.15, 0.5, 0.85, 0.93, 0.97])
    ];
    if (isQuestion(talk, i)) features.push('question');
    if (isQuestion(talk, i - 1)) features.push('question before');
    for (const [k, width] of WIDTHS.entries()) {
      features.push(binned(`near ${width}`, nearness(sums, i, width), NEAR_EDGES));
      features.push(binned(`shared ${width}`, shared[i]?.[k] ?? 0, SHARED_EDGES));
    }
    const { begun, ended } = turnover(talk, i, uses);
    features.push(binned('begun', begun, [0, 1, 2, 3, 5, 8]));
    features.push(binned('ended', ended, [0, 1, 2, 3, 5, 8]));
    return features;
  });
}

const NEAR_EDGES = [-0.2, -0.1, 0, 0.1, 0.2, 0.3, 0.45, 0.6];
const SHARED_EDGES = [0, 0.05, 0.1, 0.15, 0.2, 0.3, 0.4];

const headsOf = (name: string, words: readonly string[]): string[] =>
  [1, 2, 3].map((k) => `${name}:${words.slice(0, k).join(' ')}`);

const pairsOf = (name: string, words: readonly string[]): string[] =>
  words.slice(1).map((w, k) => `${name}:${words[k]} ${w}`);

const isQuestion = (talk: Talk, i: number): boolean =>
  /\?["”’)]*$/.test(talk.sentences[i]?.text ?? '');

/** Sums of all points before each sentence, one row a sentence and one for the end. */
function sumsOf(points: readonly Point[]): Float64Array[] {
  const size = points[0]?.values.length ?? 0;
  const rows = [new Float64Array(size)];
  for (const { values, weight } of points) {
    const row = Float64Array.from(rows.at(-1) ?? []);
    for (let a = 0; a < size; a++) row[a] = (row[a] ?? 0) + weight * (values[a] ?? 0);
    rows.push(row);
  }
  return rows;
}

/** Cosine between what is said in so many sentences before and in as many from here on. */
function nearness(sums: readonly Float64Array[], i: number, width: number): number {
  const [from, here] = [sums[Math.max(0, i - width)], sums[i]];
  const to = sums[Math.min(sums.length - 1, i + width)];
  if (!from || !here || !to) return 0;
  let [both, before, after] = [0, 0, 0];
  for (let a = 0; a < here.length; a++) {
    const x = here[a]! - from[a]!;
    const y = to[a]! - here[a]!;
    both += x * y;
    before += x * x;
    after += y * y;
  }
  return both / Math.sqrt(before * after || 1);
}

/** For each sentence and width: the share of the stems from here on that were among those before. */
function sharedTerms({ stems }: Talk): number[][] {
  const lastUse = new Map<string, number>();
  const widest = Math.max(...WIDTHS);
  return stems.map((_, i) => {
    for (const stem of stems[i - 1] ?? []) lastUse.set(stem, i - 1);
    const seen = new Set<string>();
    const shares: number[] = [];
    for (let w = 1; w <= widest; w++) {
      for (const stem of stems[i + w - 1] ?? []) seen.add(stem);
      if (!WIDTHS.some((width) => width === w)) continue;
      let both = 0;
      for (const stem of seen) if ((lastUse.get(stem) ?? -Infinity) >= i - w) both++;
      shares.push(both / (seen.size || 1));
    }
    return shares;
  });
}

function usesOf({ stems }: Talk): Map<string, number[]> {
  const uses = new Map<string, number[]>();
  for (const [i, row] of stems.entries())
    for (const stem of new Set(row)) {
      const known = uses.get(stem);
      if (known) known.push(i);
      else uses.set(stem, [i]);
    }
  return uses;
}

/** Sentences within which a term that lasts comes again. */
const SOON = 8;

/** Terms that are new within two sentences and come again soon, and terms that were in use and are no more. */
function turnover(
  { stems }: Talk,
  i: number,
  uses: ReadonlyMap<string, number[]>
): { begun: number; ended: number } {
  const within = (at: number | undefined, from: number, to: number) =>
    at !== undefined && at >= from && at < to;
  const begun = [...new Set(stems.slice(i, i + 3).flat())].filter((stem) => {
    const all = uses.get(stem) ?? [];
    return (all[0] ?? 0) >= i && all.length > 1 && within(all[1], i, i + SOON + 3);
  }).length;
  const ended = [...new Set(stems.slice(Math.max(0, i - 3), i).flat())].filter((stem) => {
    const all = uses.get(stem) ?? [];
    return (all.at(-1) ?? 0) < i && all.length > 1 && within(all.at(-2), i - SOON - 3, i);
  }).length;
  return { begun, ended };
}
