import { likeness, type Candidate } from './candidate.ts';
import type { LeftOutReason } from './written.ts';

/** Share of stems that two sentences have in common, from which on they say the same. */
const SAME = 0.62;

/** How a sentence is weighed against the room it takes. */
export const WEIGHING = {
  /** What the chance of a must not takes from that of a must. */
  against: 0.8,
  /** Words to this power are the price of a sentence: 0 were none, 1 the whole. */
  price: 0.8
};

export interface Room {
  /** Words in all. */
  wanted: number;
  /** A sentence more likely than this to be a must not is not taken, whatever room there is. */
  mostMustNot: number;
}

/** What a sentence is worth in an article. */
export const worth = ({ must, mustNot }: Candidate): number => must - WEIGHING.against * mustNot;

/**
 * The sentences that an editor would most likely keep, as many as the words wanted hold. What is said
 * twice is taken once; a sentence that depends on the one before is taken only together with it, and
 * what comes whole comes whole.
 */
export function choose(
  candidates: readonly Candidate[],
  { wanted, mostMustNot }: Room,
  leftOut: Map<number, LeftOutReason>,
  wholes: ReadonlyMap<Candidate, readonly Candidate[]> = new Map()
): Candidate[] {
  const fresh = withoutRepeated(candidates, leftOut, wholes);
  const byIndex = new Map(fresh.map((c) => [c.index, c]));
  const taken = new Set<Candidate>();
  let words = 0;
  const isWeak = (c: Candidate) => {
    // What comes whole is judged as one: a weak step must not break a procedure.
    const together = wholes.get(c) ?? [c];
    const mustNot = together.reduce((sum, one) => sum + one.mustNot, 0) / together.length;
    return !c.isKept && mustNot > mostMustNot;
  };
  /**
   * What a sentence is taken together with, in order: what it depends on, and all that it comes
   * whole with. Null where something of it was left out.
   */
  const chain = (c: Candidate): Candidate[] | null => {
    const links = new Set<Candidate>();
    const open = [c];
    for (let one = open.pop(); one; one = open.pop()) {
      if (links.has(one)) continue;
      links.add(one);
      open.push(...(wholes.get(one)?.filter((step) => byIndex.has(step.index)) ?? []));
      if (!one.dependsOnPrevious) continue;
      const before = byIndex.get(one.index - 1);
      if (!before || before.chapter !== one.chapter) return null;
      if (!taken.has(before)) open.push(before);
    }
    return [...links].sort((a, b) => a.index - b.index);
  };
  for (const c of fresh)
    if (c.isKept) {
      taken.add(c);
      words += c.words.length;
    }
  const offers = fresh.flatMap((c) => {
    if (isWeak(c) || taken.has(c)) return [];
    const links = chain(c);
    return !links || links.some(isWeak) ? [] : [offerOf(links)];
  });
  for (;;) {
    let best = -1;
    for (const [i, offer] of offers.entries())
      if (words + offer.length <= wanted && offer.value > (offers[best]?.value ?? -Infinity))
        best = i;
    const [offer] = best < 0 ? [] : offers.splice(best, 1);
    if (!offer) break;
    for (const link of offer.links) taken.add(link);
    words += offer.length;
    // What an offer shares with what is taken now need not be taken again.
    for (let i = offers.length - 1; i >= 0; i--) {
      const { links } = offers[i] as Offer;
      if (links.length === 1 && !taken.has(links[0] as Candidate)) continue;
      const rest = links.filter((link) => !taken.has(link));
      if (rest.length === 0) offers.splice(i, 1);
      else if (rest.length < links.length) offers[i] = offerOf(rest);
    }
  }
  for (const c of fresh) {
    if (taken.has(c)) continue;
    const reason = isWeak(c) ? 'says-little' : chain(c) ? 'over-length' : 'depends-on-previous';
    leftOut.set(c.index, reason);
  }
  return fresh.filter((c) => taken.has(c));
}

/** Sentences that come together, and what they are worth for the room they take. */
interface Offer {
  links: Candidate[];
  /** Words. */
  length: number;
  value: number;
}

function offerOf(links: Candidate[]): Offer {
  const length = links.reduce((sum, link) => sum + link.words.length, 0);
  const value = links.reduce((sum, link) => sum + worth(link), 0) / length ** WEIGHING.price;
  return { links, length, value };
}

function withoutRepeated(
  candidates: readonly Candidate[],
  leftOut: Map<number, LeftOutReason>,
  wholes: ReadonlyMap<Candidate, unknown>
): Candidate[] {
  const fresh: Candidate[] = [];
  const byStem = new Map<string, Candidate[]>();
  for (const c of candidates) {
    const near = new Set([...c.stems].flatMap((stem) => byStem.get(stem) ?? []));
    if (
      !c.isKept &&
      !wholes.has(c) &&
      c.stems.size >= 3 &&
      [...near].some((other) => likeness(c.stems, other.stems) >= SAME)
    ) {
      leftOut.set(c.index, 'said-twice');
      continue;
    }
    fresh.push(c);
    for (const stem of c.stems) byStem.set(stem, [...(byStem.get(stem) ?? []), c]);
  }
  return fresh;
}
