import { detectLanguage, languageOf, type Language } from '../../text/language.ts';
import type { ToldItem } from './told.ts';
import { eachWord, Units } from './units.ts';
import { WordTable } from './wordTable.ts';

/** Characters by which a language is told. */
const SAMPLE = 400;
/** Small words from which on it is certain, and by how much they must outnumber those of the next language. */
const [FEW, TIMES] = [3, 2];
/** Words from which on letters tell a language. */
const ENOUGH = 15;

/**
 * The language of each item, ISO 639-1: as its place says it; else by the small words of the languages that others are in,
 * and only where these leave it open by its letters, which takes a hundred times as long.
 */
export function languagesOf(items: readonly ToldItem[]): Map<ToldItem, string> {
  const found = new Map<ToldItem, string>();
  const silent: ToldItem[] = [];
  for (const told of items) {
    const code = told.item.language.split('-')[0]!.toLowerCase();
    if (code && code !== 'und') found.set(told, code);
    else silent.push(told);
  }
  const known = new Set(['en', 'de', ...found.values()]);
  const languages = [...known].map(languageOf).filter((l) => l.stops.size > 0);
  const guess = guesserOf(languages);
  for (const told of silent)
    found.set(told, guess(`${told.item.title}. ${told.text.slice(0, SAMPLE)}`));
  return found;
}

/** Tells the language of short texts, ISO 639-1. */
function guesserOf(languages: readonly Language[]): (sample: string) => string {
  // Of each word: in which of the languages it is a small one.
  const smallIn = new WordTable((written) => {
    const word = written.toLowerCase().replaceAll('’', "'");
    return languages.flatMap(({ stops }, at) => (stops.has(word) ? [at] : []));
  });
  const counts = new Int32Array(languages.length);
  const ofTexts = new Units();
  return (sample) => {
    const units = ofTexts.of(sample);
    let words = 0;
    counts.fill(0);
    eachWord(units, sample.length, (from, end) => {
      words++;
      for (const at of smallIn.at(units, from, end)) counts[at]!++;
    });
    const first = counts.indexOf(Math.max(...counts));
    const second = Math.max(0, ...counts.filter((_, at) => at !== first));
    const isClear = counts[first]! >= FEW && counts[first]! >= TIMES * second;
    if (isClear) return languages[first]!.code;
    // A few words of a title may be of any language.
    return words < ENOUGH ? 'und' : detectLanguage(sample);
  };
}
