import * as german from './de/abbreviations.ts';
import * as english from './en/abbreviations.ts';
import { ENGLISH_STOP_WORDS } from './en/words.ts';

/** "I" is a word, any other letter with a full stop stands for a name. */
const NEVER_END = new RegExp(
  `^(?:${english.ABBREVIATIONS}|${german.ABBREVIATIONS}|[a-hj-z])\\.$`,
  'i'
);
const MAY_END = new RegExp(`^(?:${english.MAY_END}|${german.MAY_END})\\.$`, 'i');

/**
 * Whether the full stop of a word belongs to the word and ends no sentence: "Dr.", "No. 5", "the U.S.
 * Army", but not "in the U.S. Then we left".
 * @param next the word after it as it is written; empty at the end
 */
export function isAbbreviation(word: string, next: string): boolean {
  if (NEVER_END.test(word)) return true;
  if (/^no\.$/i.test(word)) return /^\d/.test(next);
  if (!MAY_END.test(word) || next === '') return false;
  const isOpening = /^\p{Lu}/u.test(next) && ENGLISH_STOP_WORDS.has(next.toLowerCase());
  return !isOpening;
}
