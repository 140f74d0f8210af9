import { ANAPHORA } from '../lang/en/words.ts';
import { languageOf } from '../text/language.ts';
import { contentStems, wordsOf } from '../text/terms.ts';
import { usualRate } from '../text/vectors.ts';

/** Something that is told whole or not at all. */
export interface Unit {
  /** Which part of the post it stands in, from 0 on. */
  section: number;
  text: string;
  seconds: number;
  /** Taken before all of a lower rank; 0 where it is not said. */
  rank?: number;
  /** Taken together with the one behind it, or not at all. */
  goesWithNext?: boolean;
  /** How much it tells beside others of the same words; 1 as usual. */
  weight?: number;
}

/** How strongly a unit that repeats what is told already is held back. */
const REPEATED = 0.35;

/** Worth that no unit reaches by what it tells. */
const ABOVE = 1e9;

/**
 * The most telling units that fit into so many seconds: those whose words the text comes back to
 * and that are rare elsewhere, the first of a section before the later ones, little said twice.
 * A unit that depends on the one before is taken only together with it, halves of a pair together.
 * @param sectionCost seconds that a section costs as soon as anything of it is told
 */
export function fitLength<U extends Unit>(
  units: readonly U[],
  seconds: number,
  language: string,
  sectionCost: ReadonlyMap<number, number> = new Map()
): Set<U> {
  const spoken = languageOf(language);
  const stems = units.map((u) => new Set(contentStems(wordsOf(u.text), spoken)));
  const weight = weightsOf(stems, spoken.code);
  const firstOf = new Map<number, number>();
  for (const [i, u] of units.entries()) if (!firstOf.has(u.section)) firstOf.set(u.section, i);
  const dependsOnPrevious = units.map(
    (u, i) =>
      i > 0 &&
      units[i - 1]?.section === u.section &&
      (spoken.code === 'en'
        ? ANAPHORA.has(wordsOf(u.text)[0] ?? '')
        : /^(?:das|dies\w*|er|sie|es|dann|deshalb|dabei|damit)\b/i.test(u.text))
  );
  const taken = new Set<number>();
  const told = new Set<string>();
  let left = seconds;
  for (;;) {
    let best: { chain: number[]; cost: number; worth: number } | null = null;
    for (const i of units.keys()) {
      if (taken.has(i)) continue;
      const chain = [i];
      const isBoundTo = (k: number) =>
        dependsOnPrevious[k + 1] || (units[k]?.goesWithNext && k + 1 < units.length);
      while (isBoundTo(chain[0]! - 1) && !taken.has(chain[0]! - 1)) chain.unshift(chain[0]! - 1);
      while (units[chain.at(-1)!]?.goesWithNext && units[chain.at(-1)! + 1])
        chain.push(chain.at(-1)! + 1);
      const opensSection = ![...taken].some((t) => units[t]!.section === units[i]!.section);
      const cost =
        chain.reduce((sum, k) => sum + units[k]!.seconds, 0) +
        (opensSection ? (sectionCost.get(units[i]!.section) ?? 0) : 0);
      if (cost > left) continue;
      let worth = 0;
      for (const k of chain) {
        for (const stem of stems[k]!)
          worth += (weight.get(stem) ?? 0) * (told.has(stem) ? REPEATED : 1);
        if (firstOf.get(units[k]!.section) === k) worth *= 1.3;
        if (/\?$/.test(units[k]!.text)) worth *= 0.7;
        worth *= units[k]!.weight ?? 1;
      }
      // By the square root, so that neither the shortest nor the longest always win.
      worth = (worth * (opensSection ? 1.4 : 1)) / Math.sqrt(Math.max(1, cost));
      worth += (units[i]!.rank ?? 0) * ABOVE;
      if (!best || worth > best.worth) best = { chain, cost, worth };
    }
    if (!best) break;
    left -= best.cost;
    for (const k of best.chain) {
      taken.add(k);
      for (const stem of stems[k]!) told.add(stem);
    }
  }
  return new Set(units.filter((_, i) => taken.has(i)));
}

function weightsOf(stems: readonly ReadonlySet<string>[], code: string): Map<string, number> {
  const counts = new Map<string, number>();
  for (const set of stems) for (const stem of set) counts.set(stem, (counts.get(stem) ?? 0) + 1);
  return new Map(
    [...counts].map(([stem, n]) => {
      const usual = code === 'en' ? usualRate(stem) : 0.05;
      return [stem, Math.log(1 + n) * Math.log(2 + 1 / Math.max(0.001, usual))];
    })
  );
}
