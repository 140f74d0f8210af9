import type { Talk } from '../text/talk.ts';
import { isContentWord } from '../text/terms.ts';
import { usualRate } from '../text/vectors.ts';
import { binned } from '../text/scorer.ts';
import { signpostOdds } from '../lang/en/signposts.ts';

/** Sentences from one up to, not including, another. */
export interface PartOfTalk {
  from: number;
  to: number;
}

/** How often each stem is said in each part, and in all. */
export interface TermCounts {
  parts: ReadonlyMap<string, number>[];
  total: ReadonlyMap<string, number>;
}

export function countTerms(talk: Talk, parts: readonly PartOfTalk[]): TermCounts {
  const count = (from: number, to: number) => {
    const counts = new Map<string, number>();
    for (const stem of talk.stems.slice(from, to).flat())
      counts.set(stem, (counts.get(stem) ?? 0) + 1);
    return counts;
  };
  return {
    parts: parts.map(({ from, to }) => count(from, to)),
    total: count(0, talk.sentences.length)
  };
}

const sum = (counts: Iterable<number>): number => [...counts].reduce((a, n) => a + n, 0) || 1;

/** Where and as what a stem is said in a part. */
interface Use {
  /** Sentences and words from the beginning of the part. */
  sentence: number;
  word: number;
  tags: Map<string, number>;
  signposted: number;
  sentences: Set<number>;
}

function usesIn(talk: Talk, part: PartOfTalk): Map<string, Use> {
  const uses = new Map<string, Use>();
  const first = talk.sentences[part.from]?.from ?? 0;
  for (let s = part.from; s < part.to; s++) {
    const { from = 0, to = 0 } = talk.sentences[s] ?? {};
    const isPost = signpostOdds(talk.plain.slice(from, to).join(' '), '') > 1;
    for (let w = from; w < to; w++) {
      const word = talk.plain[w] ?? '';
      if (!word || !isContentWord(word, talk.language)) continue;
      const stem = talk.language.stem(word.replace(/'s$/, ''));
      const use = uses.get(stem) ?? {
        sentence: s - part.from,
        word: w - first,
        tags: new Map<string, number>(),
        signposted: 0,
        sentences: new Set<number>()
      };
      uses.set(stem, use);
      const tag = talk.tags[w] ?? 'X';
      use.tags.set(tag, (use.tags.get(tag) ?? 0) + 1);
      if (isPost) use.signposted++;
      use.sentences.add(s);
    }
  }
  return uses;
}

/** What there is to know of each stem of a part as one that the title of the part has, as names of features. */
export function termFeatures(
  talk: Talk,
  parts: readonly PartOfTalk[],
  k: number,
  counts: TermCounts
): Map<string, string[]> {
  const own = counts.parts[k] ?? new Map<string, number>();
  const [inPart, all] = [sum(own.values()), sum(counts.total.values())];
  const features = new Map<string, string[]>();
  for (const [stem, use] of usesIn(talk, parts[k] ?? { from: 0, to: 0 })) {
    const here = own.get(stem) ?? 0;
    const everywhere = counts.total.get(stem) ?? 1;
    const expected = (everywhere * inPart) / all;
    // Signed root of the log-likelihood ratio (Dunning 1993).
    const ratio = 2 * (here * Math.log(Math.max(here, 0.1) / expected) - here + expected);
    const telling = (here > expected ? 1 : -1) * Math.sqrt(Math.max(0, ratio));
    const others = counts.parts.filter((c) => c.has(stem)).length / parts.length;
    const isNew = !counts.parts.slice(0, k).some((c) => c.has(stem));
    const [tag = 'X'] = [...use.tags].sort((a, b) => b[1] - a[1])[0] ?? [];
    const often = binned('said', here, [1, 2, 4]);
    features.set(stem, [
      binned('uses', here, [1, 2, 3, 4, 6, 9]),
      binned('sentences', use.sentences.size, [1, 2, 3, 5]),
      binned('telling', telling, [-1, 0, 0.7, 1.2, 1.7, 2.2, 2.8, 3.5, 4.5]),
      binned('parts', others, [0.12, 0.25, 0.4, 0.6, 0.8]),
      binned('sentence', use.sentence, [0, 1, 2, 3, 5, 8, 14]),
      binned('word', use.word, [10, 25, 50, 100]),
      binned('usual', usualRate(stem), [0.002, 0.005, 0.01, 0.03, 0.1, 0.3, 1]),
      binned('signposted', use.signposted, [0, 1, 2]),
      binned('before', counts.parts[k - 1]?.get(stem) ?? 0, [0, 1, 2]),
      `tag:${tag}`,
      `new:${isNew}`,
      `${tag} ${often}`,
      `new:${isNew} ${often}`,
      `${binned('share', here / everywhere, [0.2, 0.4, 0.6, 0.8, 0.99])} ${often}`,
      `first part:${k === 0}`,
      `stem:${stem}`
    ]);
  }
  return features;
}
