import { francAll } from 'franc-min';
import { newStemmer } from 'snowball-stemmers';
import { LANGUAGES } from './codes.ts';
import { STOP_WORDS } from './stopWords.ts';
import { ENGLISH_STOP_WORDS } from '../lang/en/words.ts';

/** What the core knows of a language: a set of words that carry no topic, and stems. */
export interface Language {
  /** ISO 639-1; `und` where it is not known. */
  code: string;
  stops: ReadonlySet<string>;
  /** The stem of a word in lower case; the word itself where there is no stemmer. */
  stem(word: string): string;
}

const smallWords = new Map<string, ReadonlySet<string>>();

/** The small words of a language; none where they are not known. */
function smallWordsOf(two: string): ReadonlySet<string> {
  const words = smallWords.get(two) ?? new Set((STOP_WORDS[two] ?? '').split(' ').filter(Boolean));
  smallWords.set(two, words);
  return words;
}
const known = new Map<string, Language>();

/** The language of a code such as `de` or `de-AT`. */
export function languageOf(code: string): Language {
  const two = code.toLowerCase().split(/[-_]/)[0] ?? '';
  const kept = known.get(two);
  if (kept) return kept;
  const stemmer = LANGUAGES.find((l) => l[1] === two)?.[2];
  const snowball = stemmer ? newStemmer(stemmer) : null;
  const stems = new Map<string, string>();
  const language: Language = {
    code: two || 'und',
    stops: two === 'en' ? ENGLISH_STOP_WORDS : smallWordsOf(two),
    stem: (word) => {
      let stem = stems.get(word);
      if (stem === undefined) {
        stem = snowball?.stem(word) ?? word;
        stems.set(word, stem);
      }
      return stem;
    }
  };
  known.set(two, language);
  return language;
}

/**
 * The language a text is in, by its letter trigrams and by how many of its words are among the
 * small words of a language. `und` when there are fewer than five words to tell by.
 * @returns an ISO 639-1 code
 */
export function detectLanguage(text: string): string {
  const sample = text.slice(0, 6000).toLowerCase();
  const words = sample.match(/\p{L}+/gu) ?? [];
  if (words.length < 5 && !/[\u3040-\u30ff\u4e00-\u9fff\uac00-\ud7af]/.test(sample)) return 'und';
  const guesses = francAll(sample, { only: LANGUAGES.map((l) => l[0]) }).slice(0, 4);
  const scored = guesses.map(([three, likelihood]) => {
    const two = LANGUAGES.find((l) => l[0] === three)?.[1] ?? 'und';
    const small = smallWordsOf(two);
    const share = words.filter((w) => small.has(w)).length / Math.max(1, words.length);
    return { two, score: likelihood + share };
  });
  scored.sort((a, b) => b.score - a.score);
  return scored[0]?.two ?? 'und';
}
