/** Letters that take no accent apart. */
const PLAIN: Readonly<Record<string, string>> = {
  ß: 'ss',
  æ: 'ae',
  Æ: 'Ae',
  œ: 'oe',
  Œ: 'Oe',
  ø: 'o',
  Ø: 'O',
  ł: 'l',
  Ł: 'L',
  đ: 'd',
  '’': "'",
  '‘': "'",
  '“': '',
  '”': '',
  '–': ',',
  '—': ',',
  '…': '.'
};

/** The letters that flite knows: those of English, without accents. */
export const toAscii = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\x20-\x7e]/gu, (c) => PLAIN[c] ?? ' ')
    .replace(/\s+/g, ' ')
    .trim();

/** In small letters; what is all capitals is said letter by letter. */
const formOf = (word: string): string =>
  word.length > 1 && word === word.toUpperCase() ? word : word.toLowerCase();

/** The words of a text in its order, as they are said by themselves; empty where a word has no letters. */
export const wordsOf = (ascii: string): string[] =>
  ascii.split(/\s+/).map((word) => formOf(word.replace(/[^\p{L}\p{N}'-]/gu, '')));
