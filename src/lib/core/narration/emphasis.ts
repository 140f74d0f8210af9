import { languageOf } from '../text/language.ts';
import { contentStems, wordsOf } from '../text/terms.ts';
import { RULE_WORDS as GERMAN } from '../lang/de/narration.ts';
import { RULE_WORDS as ENGLISH } from '../lang/en/narration.ts';

const ruleWords = (language: string): RegExp | null =>
  ({ en: ENGLISH, de: GERMAN })[languageOf(language).code as 'en' | 'de'] ?? null;

/**
 * The sentence that a post rests on: one that lays down a rule, tells of what the title tells, and has
 * words that the rest comes back to.
 * @returns its index, or -1 where no sentence does so more than the others
 */
export function thesisIn(sentences: readonly string[], title: string, language: string): number {
  const spoken = languageOf(language);
  const stems = sentences.map((s) => new Set(contentStems(wordsOf(s), spoken)));
  const ofTitle = new Set(contentStems(wordsOf(title), spoken));
  const rule = ruleWords(language);
  const uses = new Map<string, number>();
  for (const set of stems) for (const stem of set) uses.set(stem, (uses.get(stem) ?? 0) + 1);
  let [best, most] = [-1, 0];
  for (const [i, set] of stems.entries()) {
    const sentence = sentences[i]!;
    if (sentence.endsWith('?') || set.size < 3) continue;
    const again = [...set].filter((stem) => (uses.get(stem) ?? 0) > 1).length;
    const titled = [...set].filter((stem) => ofTitle.has(stem)).length;
    const worth =
      (again + 1.5 * titled) / Math.sqrt(set.size) + (rule?.test(sentence) ? RULE_WORTH : 0);
    if (worth > most) [best, most] = [i, worth];
  }
  return best;
}
const RULE_WORTH = 3;

/** Words that two sentences have in the same order, as a share of the shorter one. */
function sharedInOrder(a: readonly string[], b: readonly string[]): number {
  let row = new Array<number>(b.length + 1).fill(0);
  for (const word of a) {
    const next = [0];
    for (const [j, other] of b.entries())
      next.push(word === other ? row[j]! + 1 : Math.max(row[j + 1]!, next[j]!));
    row = next;
  }
  return row.at(-1)! / Math.max(1, Math.min(a.length, b.length));
}

/** Words of a sentence that is still read as half of a pair. */
const PAIR_WORDS = 24;

/** Two sentences of one build, such as "Dark means …" and "Light means …": one alone tells half. */
export function arePair(a: string, b: string): boolean {
  const [x, y] = [wordsOf(a), wordsOf(b)];
  const shorter = Math.min(x.length, y.length);
  if (shorter < 3 || Math.max(x.length, y.length) > PAIR_WORDS) return false;
  // The same second word behind another first one, or half of all words in the same order.
  const contrast = x[0] !== y[0] && x[1] === y[1] && x.length > 3;
  return contrast || sharedInOrder(x, y) >= 0.5;
}

/** Sentences full of figures are hard to listen to; one or two are what is remembered. */
export const weightOfFigures = (sentence: string): number =>
  (sentence.match(/\d[\d.,]*/g)?.length ?? 0) > 2 ? 0.5 : 1;
