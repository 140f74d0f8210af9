import { languageOf } from '../text/language.ts';
import { tagWords } from '../text/tag.ts';
import { isContentWord, wordsOf } from '../text/terms.ts';
import { usualRate } from '../text/vectors.ts';

export interface KeyTerm {
  /** In lower case, as it is said most often; one to three words. */
  term: string;
  count: number;
  /** How well it tells what the text is about; higher is better. */
  weight: number;
}

/** What is measured with tells nothing of a topic. */
const MEASURES =
  /^(?:(?:milli|centi|kilo)?(?:met(?:re|er)s?|grams?|lit(?:re|er)s?)|kilos?|inch(?:es)?|feet|pounds?|seconds?|minutes?|hours?|days?|weeks?|months?|years?|degrees?|per ?cent|halves|half|times?|rest)$/;
const NOUNS = new Set(['NOUN', 'PROPN']);

/**
 * What a text is about: its nouns and short noun groups, by how often they are said against how
 * often people say them. Where parts of speech are not known, words that are no small words.
 * @returns best first, none of the same stems as one before it
 */
export function keyTerms(texts: readonly string[], language: string): KeyTerm[] {
  const spoken = languageOf(language);
  const isEnglish = spoken.code === 'en';
  const found = new Map<string, { counts: Map<string, number>; words: string[] }>();
  const add = (words: string[]) => {
    const name = words.map((w) => spoken.stem(w)).join(' ');
    const known = found.get(name) ?? { counts: new Map<string, number>(), words };
    const term = words.join(' ');
    known.counts.set(term, (known.counts.get(term) ?? 0) + 1);
    found.set(name, known);
  };
  for (const text of texts) {
    const words = wordsOf(text);
    const tags = isEnglish ? tagWords(words) : [];
    const isTopic = (i: number) =>
      isContentWord(words[i] ?? '', spoken) &&
      !/\d/.test(words[i] ?? '') &&
      !MEASURES.test(words[i] ?? '') &&
      (words[i]?.length ?? 0) > 2;
    for (let i = 0; i < words.length; i++) {
      if (!isTopic(i) || (isEnglish && !NOUNS.has(tags[i] ?? ''))) continue;
      add([words[i]!]);
      const before = tags[i - 1] ?? '';
      if (isEnglish && i > 0 && isTopic(i - 1) && (NOUNS.has(before) || before === 'ADJ'))
        if (text.toLowerCase().includes(`${words[i - 1]} ${words[i]}`))
          add([words[i - 1]!, words[i]!]);
    }
  }
  const terms: KeyTerm[] = [...found.values()].map(({ counts, words }) => {
    const count = [...counts.values()].reduce((sum, n) => sum + n, 0);
    const term = [...counts].sort((a, b) => b[1] - a[1])[0]![0];
    const usual = isEnglish ? words.reduce((sum, w) => sum + usualRate(w), 0) / words.length : 0.05;
    // A group of words tells more than each of them, where it is said again.
    const bonus = words.length > 1 ? (count > 1 ? 1.6 : 0.5) : 1;
    return {
      term,
      count,
      weight: bonus * Math.log(1 + count) * Math.log(2 + 1 / Math.max(0.001, usual))
    };
  });
  terms.sort((a, b) => b.weight - a.weight || (a.term < b.term ? -1 : 1));
  const stemsOf = (term: string) => term.split(' ').map((w) => spoken.stem(w));
  const kept: KeyTerm[] = [];
  for (const term of terms) {
    const stems = stemsOf(term.term);
    if (kept.every((k) => !stemsOf(k.term).some((s) => stems.includes(s)))) kept.push(term);
  }
  return kept;
}
