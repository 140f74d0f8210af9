import { likeness, type Candidate } from './candidate.ts';
import type { LeftOutReason } from './spoken.ts';

/** Share of stems that two sentences have in common, from which on they say the same. */
const SAME = 0.62;

/**
 * The most telling sentences that keep to the words wanted, each chapter having its share. What is
 * said twice is taken once; a sentence that depends on the one before is taken only together with it.
 */
export function choose(
  candidates: readonly Candidate[],
  wanted: number,
  leftOut: Map<number, LeftOutReason>
): Candidate[] {
  const fresh: Candidate[] = [];
  const byStem = new Map<string, Candidate[]>();
  for (const c of candidates) {
    const near = new Set([...c.stems].flatMap((stem) => byStem.get(stem) ?? []));
    if (c.stems.size >= 3 && [...near].some((other) => likeness(c.stems, other.stems) >= SAME)) {
      leftOut.set(c.index, 'said-twice');
      continue;
    }
    fresh.push(c);
    for (const stem of c.stems) byStem.set(stem, [...(byStem.get(stem) ?? []), c]);
  }
  const position = new Map(fresh.map((c, i) => [c, i]));
  const taken = new Set<Candidate>();
  let words = 0;
  /** A sentence that depends on others is taken together with what it depends on. */
  const chain = (c: Candidate): Candidate[] | null => {
    const links = [c];
    for (let first = c; first.dependsOnPrevious;) {
      const before = fresh[(position.get(first) ?? 0) - 1];
      // Where what it depends on was left out, it cannot stand.
      if (!before || before.index !== first.index - 1 || before.chapter !== first.chapter)
        return null;
      if (taken.has(before)) break;
      links.unshift(before);
      first = before;
    }
    return links;
  };
  const share = wordsByChapter(fresh, wanted);
  const spent = new Map<number, number>();
  const order = [...fresh].sort((a, b) => b.score - a.score);
  for (const round of ['chapters', 'rest'] as const) {
    for (const c of order) {
      if (taken.has(c)) continue;
      const links = chain(c);
      if (!links) continue;
      const length = links.reduce((sum, link) => sum + link.words.length, 0);
      const room =
        round === 'chapters'
          ? (share.get(c.chapter) ?? 0) - (spent.get(c.chapter) ?? 0)
          : wanted - words;
      if (length > room * 1.1 && !(round === 'chapters' && !spent.has(c.chapter) && length < 60))
        continue;
      for (const link of links) taken.add(link);
      words += length;
      spent.set(c.chapter, (spent.get(c.chapter) ?? 0) + length);
    }
  }
  for (const c of fresh) {
    if (!taken.has(c)) leftOut.set(c.index, chain(c) ? 'over-length' : 'depends-on-previous');
  }
  return fresh.filter((c) => taken.has(c));
}

function wordsByChapter(candidates: readonly Candidate[], wanted: number): Map<number, number> {
  const said = new Map<number, number>();
  for (const c of candidates) said.set(c.chapter, (said.get(c.chapter) ?? 0) + c.words.length);
  const all = [...said.values()].reduce((sum, n) => sum + n, 0) || 1;
  return new Map([...said].map(([chapter, n]) => [chapter, (wanted * n) / all]));
}
