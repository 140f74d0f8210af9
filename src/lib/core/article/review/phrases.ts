import { languageOf, detectLanguage } from '../../text/language.ts';
import { wordsOf } from '../../text/terms.ts';
import type { TextBlock } from '../../markup/textBlocks.ts';

export type PhrasePlace = 'title' | 'opening' | 'headings' | 'pictures' | 'body';

export interface PhraseStanding {
  phrase: string;
  /** How often it stands in each place; endings may differ. */
  counts: Record<PhrasePlace, number>;
  /** Uses in a thousand words of body. */
  rate: number;
  /** Uses that good pages have, in a thousand words. */
  range: { least: number; most: number };
  /** 0 to 100: where it stands, and whether it stands there as often as on good pages. */
  score: number;
}

/** Words that count as the opening. */
const OPENING = 100;
const WEIGHTS: Record<PhrasePlace, number> = {
  title: 25,
  opening: 20,
  headings: 15,
  pictures: 10,
  body: 30
};
const USUAL = { least: 2, most: 14 };

const stemsOf = (text: string, code: string): string[] => {
  const language = languageOf(code);
  return wordsOf(text).map((word) => language.stem(word.replace(/'s$/, '')));
};

function countIn(stems: readonly string[], phrase: readonly string[]): number {
  let count = 0;
  for (let i = 0; i + phrase.length <= stems.length; i++)
    if (phrase.every((stem, k) => stems[i + k] === stem)) count++;
  return count;
}

/** The range of uses that pages one admires have; the usual one where there are none. */
export function rangeFrom(phrase: string, pages: readonly string[]): PhraseStanding['range'] {
  const rates = pages
    .filter((page) => wordsOf(page).length > 50)
    .map((page) => {
      const code = detectLanguage(page);
      const stems = stemsOf(page, code);
      return (1000 * countIn(stems, stemsOf(phrase, code))) / stems.length;
    });
  if (rates.length === 0) return USUAL;
  return { least: Math.min(...rates), most: Math.max(...rates) };
}

/**
 * Where the phrases that a post should be found by stand in it.
 * @param admired texts of pages whose use of the phrases sets the range
 */
export function phraseStandings(
  phrases: readonly string[],
  title: string,
  blocks: readonly TextBlock[],
  admired: readonly string[] = []
): PhraseStanding[] {
  const textOf = (...kinds: TextBlock['kind'][]) =>
    blocks
      .filter((b) => kinds.includes(b.kind))
      .map((b) => b.text)
      .join('\n');
  const body = textOf('paragraph', 'item', 'quote');
  const code = detectLanguage(`${title} ${body}`);
  const inBody = stemsOf(body, code);
  const places: Record<PhrasePlace, string[]> = {
    title: stemsOf(title, code),
    opening: inBody.slice(0, OPENING),
    headings: stemsOf(textOf('heading'), code),
    pictures: stemsOf(textOf('picture'), code),
    body: inBody
  };
  return phrases.map((phrase) => {
    const wanted = stemsOf(phrase, code);
    const counts = Object.fromEntries(
      Object.entries(places).map(([place, stems]) => [
        place,
        wanted.length > 0 ? countIn(stems, wanted) : 0
      ])
    ) as Record<PhrasePlace, number>;
    const rate = (1000 * counts.body) / Math.max(1, inBody.length);
    const range = rangeFrom(phrase, admired);
    const off = rate < range.least ? rate / range.least : rate > range.most ? range.most / rate : 1;
    const score = (Object.keys(WEIGHTS) as PhrasePlace[]).reduce((sum, place) => {
      return (
        sum +
        WEIGHTS[place] *
          (place === 'body' ? (counts.body > 0 ? off : 0) : Math.min(1, counts[place]))
      );
    }, 0);
    return { phrase, counts, rate: Math.round(rate * 10) / 10, range, score: Math.round(score) };
  });
}
