import { languageOf } from '../text/language.ts';
import { isContentWord, wordsOf } from '../text/terms.ts';
import { hasWords, matches, searchSchema, type Searched } from './search.ts';

/** What is suggested: single words, two in a row, or tags as the catalogue has them. */
export type SuggestionKind = 'words' | 'phrases' | 'tags';

export interface WordSuggestion {
  /** As the catalogue writes it most often. */
  word: string;
  /** Items that have it together with what was given; all of its items where nothing was given. */
  together: number;
  /** Items that it would find by itself. */
  items: number;
}

export type Suggestible = Searched & { language: string };

/** Items that must have a suggestion, and the share that may have it where nothing was given. */
const [FEWEST, MOST_SHARE] = [2, 0.6];

/**
 * Words that a catalogue says together with some others more often than without them, the surest first:
 * by the log-likelihood ratio (Dunning, "Accurate Methods for the Statistics of Surprise and
 * Coincidence", Computational Linguistics 19/1, 1993). Without others, those of most items that do not
 * stand nearly everywhere.
 * @param given words or tags, each found as a search finds it
 * @param most how many are suggested
 */
export function suggestWords(
  items: readonly Suggestible[],
  given: readonly string[],
  kind: SuggestionKind,
  most = 8
): WordSuggestion[] {
  const wanted = given.filter((word) => word.trim());
  const search = searchSchema.parse({ any: wanted });
  const isGiven = items.map((item) => wanted.length > 0 && matches(item, search));
  const found = isGiven.filter(Boolean).length;
  const counts = new Map<string, Counted>();
  for (const [i, item] of items.entries())
    for (const [key, word] of termsIn(item, kind)) {
      const counted = counts.get(key) ?? { forms: new Map(), items: 0, together: 0 };
      counted.forms.set(word, (counted.forms.get(word) ?? 0) + 1);
      counted.items++;
      if (isGiven[i]) counted.together++;
      counts.set(key, counted);
    }
  const scored = [...counts.values()].flatMap((counted) => {
    const word = usualForm(counted);
    if (wanted.some((other) => hasWords(other, word) || hasWords(word, other))) return [];
    const score =
      found > 0 ? likelihoodRatio(counted, found, items.length) : commonness(counted, items.length);
    return score > 0 ? [{ word, score, ...counted }] : [];
  });
  return scored
    .sort((a, b) => b.score - a.score || a.word.localeCompare(b.word))
    .slice(0, most)
    .map(({ word }) => {
      const alone = searchSchema.parse({ any: [word] });
      const has = items.map((item) => matches(item, alone));
      const of = has.filter(Boolean).length;
      const together = has.filter((it, i) => it && isGiven[i]).length;
      return { word, together: found > 0 ? together : of, items: of };
    });
}

interface Counted {
  /** How it is written, with how many items write it so. */
  forms: Map<string, number>;
  items: number;
  together: number;
}

const usualForm = ({ forms }: Counted): string =>
  [...forms].reduce((best, form) => (form[1] > best[1] ? form : best))[0];

/** What an item says, each once: by its stem where words of one stem are one. */
function termsIn(item: Suggestible, kind: SuggestionKind): Map<string, string> {
  const terms = new Map<string, string>();
  if (kind === 'tags') {
    for (const tag of item.tags) if (tag.trim()) terms.set(tag.trim().toLowerCase(), tag.trim());
    return terms;
  }
  const language = languageOf(item.language || 'en');
  for (const text of [item.title, item.summary, ...item.tags]) {
    // An address is no word.
    const words = wordsOf(text.replace(/\bhttps?:\/\/\S+/g, ' '));
    for (const [i, word] of words.entries()) {
      if (!isTelling(word)) continue;
      const next = words[i + 1] ?? '';
      if (kind === 'words') terms.set(language.stem(word), word);
      else if (isTelling(next))
        terms.set(`${language.stem(word)} ${language.stem(next)}`, `${word} ${next}`);
    }
  }
  return terms;

  function isTelling(word: string): boolean {
    return word.length > 2 && /\p{L}/u.test(word) && isContentWord(word, language);
  }
}

/** Above 0 where it stands more often with what was given than its share alone would have it. */
function likelihoodRatio({ items, together }: Counted, found: number, all: number): number {
  if (together < FEWEST || together * all <= items * found) return 0;
  const table = [together, items - together, found - together, all - items - found + together];
  const entropy = (counts: number[]): number => {
    const sum = counts.reduce((a, b) => a + b, 0);
    return counts.reduce((h, n) => (n > 0 ? h + n * Math.log(n / sum) : h), 0);
  };
  const [a = 0, b = 0, c = 0, d = 0] = table;
  return 2 * (entropy(table) - entropy([a + b, c + d]) - entropy([a + c, b + d]));
}

const commonness = ({ items }: Counted, all: number): number =>
  items >= FEWEST && items <= MOST_SHARE * all ? items : 0;
