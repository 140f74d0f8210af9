import type { Item } from '../../model/item.ts';
import { languageOf, type Language } from '../../text/language.ts';
import { isContentWord } from '../../text/terms.ts';
import { Counter } from './counter.ts';
import { partOf, type SeriesPart } from './series.ts';
import { eachWord, Units } from './units.ts';
import { WordTable } from './wordTable.ts';

/** An item, and the plain text there is of it: description and transcript, or the text of a post. */
export interface ToldItem {
  item: Item;
  text: string;
}

/** What is compared of an item. Terms are numbers of `Terms`. */
export interface Told {
  item: Item;
  /** ISO 639-1, or `und`. */
  language: string;
  /** Stems of its title, each once; this list and the others are in ascending order. */
  title: readonly number[];
  /** Stems of its text with what each counts by how often it is said, those of the title not among them. */
  text: readonly number[];
  often: readonly number[];
  /** Words that mean the same in any language: names by their capitals, and numbers. */
  names: readonly number[];
  figures: readonly number[];
  tags: readonly number[];
  part: SeriesPart | null;
  /** Days since 1970, or null. */
  day: number | null;
  hasText: boolean;
  isClip: boolean;
}

/** What a word as it is written comes to: the number of its stem, or -1; whether it is a figure, a name by its capital. */
interface Read {
  id: number;
  isFigure: boolean;
  name: number;
}

/** Words and their numbers. */
export class Terms {
  readonly #ids = new Map<string, number>();
  readonly #read = new Map<string, WordTable<Read>>();
  readonly words: string[] = [];
  /** What one item says, while it is read. */
  readonly units = new Units();
  readonly said = new Counter();
  readonly names = new Counter();
  readonly figures = new Counter();
  /** By number: the word as it was first written. */
  readonly #written: string[] = [];

  id(word: string, written = word): number {
    const known = this.#ids.get(word);
    if (known !== undefined) return known;
    const id = this.words.push(word) - 1;
    this.#written.push(written);
    this.#ids.set(word, id);
    return id;
  }
  get size(): number {
    return this.words.length;
  }

  /** A word as people write it. */
  shown(id: number): string {
    return this.#written[id] ?? '';
  }

  /** Words as they are written in one language, each read once. */
  in(language: Language): WordTable<Read> {
    let known = this.#read.get(language.code);
    if (!known) {
      known = new WordTable((written) => this.#readWord(written, language));
      this.#read.set(language.code, known);
    }
    return known;
  }

  #readWord(written: string, language: Language): Read {
    const first = written.charCodeAt(0);
    if (first >= 48 && first <= 57)
      return { id: this.id(`=${plainNumber(written)}`, written), isFigure: true, name: -1 };
    const lower = written.toLowerCase().replaceAll('’', "'").replace(/'s$/, '');
    if (!isContentWord(lower, language)) return { id: -1, isFigure: false, name: -1 };
    const isCapital = lower.charCodeAt(0) !== first;
    return {
      id: this.id(language.stem(lower), lower),
      isFigure: false,
      name: isCapital ? this.id(`@${lower}`, written) : -1
    };
  }
}

const DAY = 86_400_000;
/**
 * Reads what is compared of an item.
 * @param code its language, ISO 639-1
 * @param most characters of its text that are looked at
 */
export function tellItem({ item, text }: ToldItem, code: string, terms: Terms, most: number): Told {
  const words = terms.in(languageOf(code));
  readWords(item.title, words, terms, true);
  const title = terms.said.take().numbers;
  readWords(text.slice(0, most), words, terms, false);
  const tags = item.tags.map((tag) => terms.id(`#${tag.toLowerCase().trim()}`, tag.trim()));
  const { numbers: said, times } = terms.said.take(title);
  const time = item.published === null ? NaN : Date.parse(item.published);
  return {
    item,
    language: code,
    title,
    text: said,
    often: times.map(weightOf),
    names: terms.names.take().numbers,
    figures: terms.figures.take().numbers,
    tags: inOrder(tags),
    part: partOf(item.title),
    day: Number.isFinite(time) ? time / DAY : null,
    hasText: said.length >= ENOUGH_TERMS,
    isClip: item.duration !== null && item.duration > 0 && item.duration <= CLIP
  };
}
/** Seconds: a clip is no longer. */
const CLIP = 60;
const ENOUGH_TERMS = 8;

/** Each once. */
const inOrder = (ids: readonly number[]): number[] => [...new Set(ids)].sort((a, b) => a - b);

/** What a word counts by how often it is said. */
const weightOf = (times: number): number => 1 + Math.log(times);

/** Counts the words, names and figures of a text. */
function readWords(
  text: string,
  words: WordTable<Read>,
  { units: ofTexts, said, names, figures }: Terms,
  isTitle: boolean
): void {
  const units = ofTexts.of(text);
  eachWord(units, text.length, (from, end, isHead) => {
    const { id, isFigure, name } = words.at(units, from, end);
    if (id >= 0) said.add(id);
    if (isFigure) figures.add(id);
    // At the head of a sentence any word has a capital.
    if (name >= 0 && (isTitle || !isHead)) names.add(name);
  });
}

/** "1,200" and "1.200" are one number, and "1,5" and "1.5". */
const plainNumber = (written: string): string =>
  written.replace(/[.,](?=\d{3}(?!\d))/g, '').replace(',', '.');
