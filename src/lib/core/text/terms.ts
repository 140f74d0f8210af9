import type { Language } from './language.ts';

const WORD = /[\p{L}\p{N}\p{M}]+(?:['’.-][\p{L}\p{N}\p{M}]+)*/gu;
/** Scripts that put no space between words. */
const UNSPACED = /[\u3040-\u30ff\u3400-\u9fff\u0e00-\u0eff\u1000-\u109f]/;
let segmenter: Intl.Segmenter | null = null;

/** Whether a text has letters of a script that puts no spaces between words. */
export const isUnspaced = (text: string): boolean => UNSPACED.test(text);

/** The words of a text in lower case, with straight apostrophes and without punctuation. */
export function wordsOf(text: string): string[] {
  const lower = text.toLowerCase().replaceAll('’', "'");
  if (!isUnspaced(lower)) return lower.match(WORD) ?? [];
  segmenter ??= new Intl.Segmenter(undefined, { granularity: 'word' });
  return [...segmenter.segment(lower)].filter((s) => s.isWordLike).map((s) => s.segment);
}

/** Whether a word may tell a topic: no small word of its language, no lone character. */
export const isContentWord = (word: string, language: Language): boolean =>
  !language.stops.has(word) && (word.length > 1 || isUnspaced(word));

/** Stems of the words of a text that may tell a topic, in their order. */
export const contentStems = (words: readonly string[], language: Language): string[] =>
  words
    .filter((word) => isContentWord(word, language))
    .map((word) => language.stem(word.replace(/'s$/, '')));
