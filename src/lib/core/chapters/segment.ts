import { ANAPHORA, CONNECTIVES } from '../lang/en/words.ts';
import { detectLanguage, languageOf } from '../text/language.ts';
import { contentStems, wordsOf } from '../text/terms.ts';
import { findParts, type PartWeights } from './parts.ts';
import { pointOf } from './topicSpace.ts';

/** Tuned on texts joined from the tuning half of the Brown corpus (see docs/benchmarks.md). */
const WEIGHTS: PartWeights = {
  lexical: 1.93,
  topical: 0.7,
  spread: 0.63,
  axes: 64,
  concentration: 820,
  ownRate: 0.085
};
/** Log-odds against a part, whatever is in it. */
const COST = 3.08;
/** Against a part that begins with a word that depends on what was said before. */
const LEANING = 0.7;
/** Sentences in a part of a written text, and what each one too few and the factor too many cost. */
const USUAL = { least: 3, most: 11, tooFew: 3.8, tooMany: 80 };

/**
 * Where a text without times changes its subject.
 * @param sentences one a row
 * @param count number of parts, where it is known
 * @returns index of the first sentence of each part; the first is 0
 */
export function segmentText(sentences: readonly string[], count?: number): number[] {
  const code = detectLanguage(sentences.join(' '));
  const language = languageOf(code === 'und' ? 'en' : code);
  const isEnglish = language.code === 'en';
  const words = sentences.map(wordsOf);
  return findParts(
    words.map((row) => ({
      stems: contentStems(row, language),
      point: isEnglish ? pointOf(row) : null
    })),
    {
      weights: WEIGHTS,
      begins: words.map(([head = '']) =>
        isEnglish && (ANAPHORA.has(head) || CONNECTIVES.has(head)) ? -COST - LEANING : -COST
      ),
      // Where the number of parts is known, their length need not be guessed.
      length: (from, to) =>
        count
          ? 0
          : to - from < USUAL.least
            ? -USUAL.tooFew * (USUAL.least - (to - from))
            : -USUAL.tooMany * Math.max(0, Math.log((to - from) / USUAL.most)) ** 2,
      most: count ? sentences.length : 80,
      count
    }
  ).starts;
}
