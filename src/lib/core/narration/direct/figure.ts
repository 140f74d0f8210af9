import type { GistWords } from '../../lang/gists.ts';
import { phraseOf } from './gist.ts';
import type { ReadSentence, Word } from './sentence.ts';

/** A figure that a sentence tells: the number, what it counts, and what is said of it. */
export interface Figure {
  value: string;
  unit: string;
  meaning: string;
  /** After how much of the sentence the number is said, between 0 and 1. */
  share: number;
  /** How much the sentence is about it: 1 for a count of things, more for a measure. */
  weight: number;
}

/** A sentence with more figures than this is no longer about one of them. */
const MOST_FIGURES = 2;
/** Words of a unit, such as "ends per centimetre", and of what is said before and behind it. */
const UNIT_WORDS = 3;
const SIDE_WORDS = 5;
/** A year is no count of anything. */
const YEAR = /^(?:1[5-9]|20)\d\d$/;

/** The figure that a sentence is about; null where it has none or too many. */
export function figureIn(sentence: ReadSentence): Figure | null {
  const { words, known } = sentence;
  if (!known) return null;
  const found = words.flatMap((_, at) => figureAt(words, at, known) ?? []);
  if (found.length === 0 || found.length > MOST_FIGURES) return null;
  const [best] = found.toSorted((a, b) => b.weight - a.weight);
  if (!best) return null;
  const meaning = around(sentence, best, known);
  if (!meaning) return null;
  const value = phraseOf(sentence, best.from, best.split);
  return {
    value: value.text.replace(/(?<=[\p{L}\p{N}%°])[^\p{L}\p{N}%°]+$/u, ''),
    unit: phraseOf(sentence, best.split, best.to).text.replace(/^\p{Lu}(?=\p{Ll})/u, (c) =>
      c.toLowerCase()
    ),
    meaning,
    share: value.share,
    weight: best.weight
  };
}

/** What its clause says of it, with dots where the figure is said. */
function around({ text, words }: ReadSentence, { from, to }: Found, known: GistWords): string {
  let [begin, end] = [from, to];
  const isEnd = (at: number) => /[,;:.!?–—)]["”’]*$/.test(words[at]?.text ?? '.');
  while (begin > 0 && from - begin < SIDE_WORDS && !isEnd(begin - 1)) begin--;
  while (!isEnd(end - 1) && end < words.length && end - to < SIDE_WORDS) end++;
  // A phrase neither begins in the middle of a thing nor ends before it is named.
  while (
    begin < from &&
    (known.heads.has(words[begin]!.plain) || known.doers.has(words[begin]!.plain))
  )
    begin++;
  while (end > to && known.tails.has(words[end - 1]!.plain)) end--;
  const shown = (a: number, b: number) =>
    b > a ? text.slice(words[a]!.from, words[b - 1]!.to) : '';
  const [before, after] = [shown(begin, from), shown(to, end)].map((part) =>
    part.replace(/(?<![,;:.!?])[,;:.!?]+$/, '')
  );
  // "takes …" tells nothing.
  if (`${before} ${after}`.trim().split(' ').length < 2) return '';
  const meaning = [before, after].filter(Boolean).join(' … ') + (after ? '' : ' …');
  return meaning.replace(/^\p{Ll}/u, (c) => c.toUpperCase());
}

interface Found {
  from: number;
  /** Where the unit begins, and ends. */
  split: number;
  to: number;
  weight: number;
}

function figureAt(words: readonly Word[], at: number, known: GistWords): Found | null {
  const word = words[at]!;
  if (word.tag !== 'NUM' || words[at - 1]?.tag === 'NUM') return null;
  if (/^(?:to|bis)$/.test(words[at - 1]?.plain ?? '') && words[at - 2]?.tag === 'NUM') return null;
  let split = at + 1;
  const goesOn = (at: number) => words[at]?.tag === 'NUM' && !/[,;:.]$/.test(words[at - 1]!.text);
  while (goesOn(split)) split++;
  // "three to six weeks" is one figure.
  if (/^(?:to|bis)$/.test(words[split]?.plain ?? '') && goesOn(split + 1)) split += 2;
  const number = words.slice(at, split).map((w) => w.plain);
  if (number.some((n) => /\/|:/.test(n))) return null;
  const isSigned = /[%°€$£]/.test(
    words
      .slice(at, split)
      .map((w) => w.text)
      .join('')
  );
  let to = split;
  if (!/[,;:.!?]$/.test(words[split - 1]!.text))
    while (to < words.length && to - split < UNIT_WORDS) {
      const { tag, text, plain } = words[to]!;
      const isMeasure = known.measures.test(plain);
      if (!isMeasure && !/^(?:NOUN|ADJ)$/.test(tag)) break;
      to++;
      // What is counted ends with its noun, unless it is so much of something a unit.
      if (/[,;:.!?]$/.test(text) || (isMeasure && words[to]?.plain !== 'per')) break;
      if (tag === 'NOUN' && words[to]?.tag !== 'NOUN') break;
    }
  const unit = words.slice(split, to);
  const isMeasured = unit.some((w) => known.measures.test(w.plain)) || isSigned;
  const hasNoun = isMeasured || unit.at(-1)?.tag === 'NOUN';
  if (!hasNoun) return null;
  if (!isMeasured && number.length === 1 && known.smallNumbers.has(number[0]!)) return null;
  if (!isMeasured && YEAR.test(number[0]!)) return null;
  const hasDigits = /\d/.test(number.join(''));
  return { from: at, split, to, weight: 1 + (isMeasured ? 0.6 : 0) + (hasDigits ? 0.4 : 0) };
}
