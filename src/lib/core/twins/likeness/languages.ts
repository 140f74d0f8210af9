import { detectLanguage, languageOf } from '../../text/language.ts';
import { wordsOf } from '../../text/terms.ts';
import type { ToldItem } from './told.ts';

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
    if (code) found.set(told, code);
    else silent.push(told);
  }
  const known = new Set(['en', 'de', ...found.values()]);
  const languages = [...known].map(languageOf).filter((l) => l.stops.size > 0);
  for (const told of silent) {
    const sample = `${told.item.title}. ${told.text.slice(0, SAMPLE)}`;
    const words = wordsOf(sample);
    const [first, second] = languages
      .map(({ code, stops }) => ({ code, count: words.filter((word) => stops.has(word)).length }))
      .sort((a, b) => b.count - a.count);
    const isClear = first && first.count >= FEW && first.count >= TIMES * (second?.count ?? 0);
    // A few words of a title may be of any language.
    const code = isClear ? first.code : words.length < ENOUGH ? 'und' : detectLanguage(sample);
    found.set(told, code);
  }
  return found;
}
