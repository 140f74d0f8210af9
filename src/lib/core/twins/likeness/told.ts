import type { Item } from '../../model/item.ts';
import { languageOf, type Language } from '../../text/language.ts';
import { isContentWord } from '../../text/terms.ts';
import { Counter } from './counter.ts';
import { partOf, type SeriesPart } from './series.ts';
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
  title: Int32Array;
  /** Stems of its text with how often each is said, those of the title not among them. */
  text: Int32Array;
  often: Float32Array;
  /** Words that mean the same in any language: names by their capitals, and numbers. */
  names: Int32Array;
  figures: Int32Array;
  tags: Int32Array;
  part: SeriesPart | null;
  /** Days since 1970, or null. */
  day: number | null;
  hasText: boolean;
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
  readonly counter = new Counter();
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
const [OTHER, LETTER, JOINS, ENDS] = [0, 1, 2, 3];
let kinds: Uint8Array | null = null;

/** What each UTF-16 unit is to a word: a part of it, what may join two parts, or what ends a sentence. */
function kindsOfUnits(): Uint8Array {
  if (kinds) return kinds;
  const found = new Uint8Array(65_536);
  for (let unit = 0; unit < found.length; unit++) {
    const char = String.fromCharCode(unit);
    const isSurrogate = unit >= 0xd800 && unit <= 0xdfff;
    if (isSurrogate || /[\p{L}\p{N}\p{M}]/u.test(char)) found[unit] = LETTER;
  }
  for (const char of "'’.,-") found[char.charCodeAt(0)] = JOINS;
  for (const char of '!?:…\n') found[char.charCodeAt(0)] = ENDS;
  kinds = found;
  return found;
}

/**
 * Reads what is compared of an item.
 * @param code its language, ISO 639-1
 * @param most characters of its text that are looked at
 */
export function tellItem({ item, text }: ToldItem, code: string, terms: Terms, most: number): Told {
  const shown = text.slice(0, most);
  const words = terms.in(languageOf(code));
  const names = new Set<number>();
  const figures = new Set<number>();
  const title = new Set<number>();
  readWords(item.title, words, names, figures, (id) => title.add(id), true);
  readWords(shown, words, names, figures, (id) => terms.counter.add(id));
  const tags = item.tags.map((tag) => terms.id(`#${tag.toLowerCase().trim()}`, tag.trim()));
  const { numbers: said, times } = terms.counter.take(title);
  const time = item.published === null ? NaN : Date.parse(item.published);
  return {
    item,
    language: code,
    title: inOrder(title),
    text: said,
    often: weightsOf(times),
    names: inOrder(names),
    figures: inOrder(figures),
    tags: inOrder(new Set(tags)),
    part: partOf(item.title),
    day: Number.isFinite(time) ? time / DAY : null,
    hasText: said.length >= ENOUGH_TERMS
  };
}
const ENOUGH_TERMS = 8;

const inOrder = (ids: ReadonlySet<number>): Int32Array => new Int32Array([...ids]).sort();

/** What a word counts by how often it is said. */
function weightsOf(times: Int32Array): Float32Array {
  const weights = new Float32Array(times.length);
  for (let i = 0; i < weights.length; i++) weights[i] = 1 + Math.log(times[i]!);
  return weights;
}

function readWords(
  text: string,
  words: WordTable<Read>,
  names: Set<number>,
  figures: Set<number>,
  take: (id: number) => void,
  isTitle = false
): void {
  const units = kindsOfUnits();
  const kindAt = (at: number) => units[text.charCodeAt(at)] ?? OTHER;
  let isHead = true;
  for (let at = 0; at < text.length; at++) {
    const kind = kindAt(at);
    if (kind !== LETTER) {
      isHead ||= kind === ENDS || text[at] === '.';
      continue;
    }
    let end = at + 1;
    while (kindAt(end) === LETTER || (kindAt(end) === JOINS && kindAt(end + 1) === LETTER)) end++;
    const { id, isFigure, name } = words.at(text, at, end);
    if (id >= 0) take(id);
    if (isFigure) figures.add(id);
    // At the head of a sentence any word has a capital.
    if (name >= 0 && (isTitle || !isHead)) names.add(name);
    isHead = false;
    at = end - 1;
  }
}

/** "1,200" and "1.200" are one number, and "1,5" and "1.5". */
const plainNumber = (written: string): string =>
  written.replace(/[.,](?=\d{3}(?!\d))/g, '').replace(',', '.');
