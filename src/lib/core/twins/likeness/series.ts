/** Which part of a series a title says it is. */
export interface SeriesPart {
  number: number;
  /** Of how many, or null. */
  of: number | null;
}

const WORDS =
  'part|pt|episode|ep|chapter|lesson|day|week|vol|volume|no|nr|number|teil|folge|tag|woche|kapitel|lektion|partie|épisode|parte|capítulo|deel|aflevering';
const NAMED = new RegExp(
  `(?:^|[^\\p{L}])(?:${WORDS})[.\\s]{0,2}#?\\s?(\\d{1,4}|[ivx]{1,5})(?![\\p{L}\\d])`,
  'iu'
);
/** "part two", "Teil drei": written out, after words that nothing else follows. */
const SPELT: Readonly<Record<string, number>> = {
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  eins: 1,
  zwei: 2,
  drei: 3,
  vier: 4,
  fünf: 5,
  sechs: 6,
  sieben: 7,
  acht: 8,
  neun: 9,
  zehn: 10
};
const NAMED_IN_WORDS = new RegExp(
  `(?<!\\p{L})(?:part|episode|chapter|lesson|teil|folge|kapitel|lektion) (${Object.keys(SPELT).join('|')})(?!\\p{L})`,
  'iu'
);
/** "the second half", "der dritte Teil": by the beginnings of ordinal numbers. */
const ORDINALS: readonly (readonly string[])[] = [
  ['first', '1st', 'erste'],
  ['second', '2nd', 'zweite'],
  ['third', '3rd', 'dritte'],
  ['fourth', '4th', 'vierte'],
  ['fifth', '5th', 'fünfte'],
  ['sixth', '6th', 'sechste']
];
const ORDERED = new RegExp(
  `(?<![\\p{L}\\d])(${ORDINALS.flat().join('|')})[rnms]? (?:part|half|episode|chapter|lesson|teil|hälfte|folge|kapitel|lektion)(?!\\p{L})`,
  'iu'
);
const SIGNED = /#\s?(\d{1,4})(?!\d)/;
const OF = /(?:^|[^\d])(\d{1,3})\s?(?:\/|of|von)\s?(\d{1,3})(?!\d)/i;
const ROMAN: Readonly<Record<string, number>> = { i: 1, v: 5, x: 10 };

/** The part of a series that a title tells ("part 3", "#12", "2/5", "Teil IV", "part two", "second half"), or null. */
export function partOf(title: string): SeriesPart | null {
  const of = OF.exec(title);
  if (of) {
    const [number, all] = [Number(of[1]), Number(of[2])];
    if (number >= 1 && number <= all && all <= 60) return { number, of: all };
  }
  const found = NAMED.exec(title)?.[1] ?? SIGNED.exec(title)?.[1];
  if (!found) {
    const number = spelt(title);
    return number === null ? null : { number, of: null };
  }
  return { number: spelledNumber(found.toLowerCase()), of: null };
}

/** "3", "iii", "three" or "drei", or 0 for what is no number. */
export function spelledNumber(word: string): number {
  if (/^\d+$/.test(word)) return Number(word);
  return SPELT[word] ?? (/^[ivx]+$/.test(word) ? roman(word) : 0);
}

function spelt(title: string): number | null {
  const word = NAMED_IN_WORDS.exec(title)?.[1];
  if (word) return SPELT[word.toLowerCase()] ?? null;
  const ordinal = ORDERED.exec(title)?.[1]?.toLowerCase();
  return ordinal ? ORDINALS.findIndex((words) => words.includes(ordinal)) + 1 : null;
}

function roman(letters: string): number {
  let sum = 0;
  for (let i = 0; i < letters.length; i++) {
    const value = ROMAN[letters[i]!] ?? 0;
    sum += value < (ROMAN[letters[i + 1] ?? ''] ?? 0) ? -value : value;
  }
  return sum;
}
