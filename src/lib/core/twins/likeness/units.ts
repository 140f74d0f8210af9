import { isUnspaced } from '../../text/terms.ts';

/**
 * The UTF-16 units of one text after the other, in the same memory: to ask the text itself for each of millions takes
 * longer. After the last one stands a 0.
 */
export class Units {
  #memory = new Uint16Array(1 << 15);

  /** @returns good until the next text is read; it may be longer than the text */
  of(text: string): Uint16Array {
    if (text.length >= this.#memory.length) this.#memory = new Uint16Array(2 * text.length);
    const units = this.#memory;
    for (let at = 0; at < text.length; at++) units[at] = text.charCodeAt(at);
    units[text.length] = 0;
    return units;
  }
}

const [LETTER, JOINS, ENDS, UNSPACED] = [1, 2, 3, 4];
let kinds: Uint8Array | null = null;

/** What each UTF-16 unit is to a word: a part of it, what may join two parts, what ends a sentence, or a letter of a script without spaces. */
function kindsOfUnits(): Uint8Array {
  if (kinds) return kinds;
  const found = new Uint8Array(65_536);
  for (let unit = 0; unit < found.length; unit++) {
    const char = String.fromCharCode(unit);
    const isSurrogate = unit >= 0xd800 && unit <= 0xdfff;
    if (isSurrogate || /[\p{L}\p{N}\p{M}]/u.test(char))
      found[unit] = isUnspaced(char) ? UNSPACED : LETTER;
  }
  for (const char of "'’.,-") found[char.charCodeAt(0)] = JOINS;
  for (const char of '!?:…。！？\n') found[char.charCodeAt(0)] = ENDS;
  kinds = found;
  return found;
}
const FULL_STOP = '.'.charCodeAt(0);

/**
 * Finds the words of a text. Of scripts without spaces these are all pairs of letters that follow each other: no
 * dictionary is needed to compare such texts by them.
 * @param units as `Units` gives them
 * @param length of the text
 * @param take is told where each word begins, where it has ended, and whether it is the first of a sentence
 */
export function eachWord(
  units: Uint16Array,
  length: number,
  take: (from: number, end: number, isHead: boolean) => void
): void {
  const ofUnits = kindsOfUnits();
  let isHead = true;
  for (let at = 0; at < length; at++) {
    const kind = ofUnits[units[at]!];
    if (kind === UNSPACED) {
      // Of a run of letters the last one stands by itself only where it is alone.
      const isNext = ofUnits[units[at + 1]!] === UNSPACED;
      const isAlone = !isNext && (at === 0 || ofUnits[units[at - 1]!] !== UNSPACED);
      if (isNext || isAlone) take(at, at + (isNext ? 2 : 1), isHead);
      isHead = false;
      continue;
    }
    if (kind !== LETTER) {
      isHead ||= kind === ENDS || units[at] === FULL_STOP;
      continue;
    }
    let end = at + 1;
    for (;;) {
      const next = ofUnits[units[end]!];
      if (next !== LETTER && !(next === JOINS && ofUnits[units[end + 1]!] === LETTER)) break;
      end++;
    }
    take(at, end, isHead);
    isHead = false;
    at = end - 1;
  }
}
