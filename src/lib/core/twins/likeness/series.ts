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
const SIGNED = /#\s?(\d{1,4})(?!\d)/;
const OF = /(?:^|[^\d])(\d{1,3})\s?(?:\/|of|von)\s?(\d{1,3})(?!\d)/i;
const ROMAN: Readonly<Record<string, number>> = { i: 1, v: 5, x: 10 };

/** The part of a series that a title tells ("part 3", "#12", "2/5", "Teil IV"), or null. */
export function partOf(title: string): SeriesPart | null {
  const of = OF.exec(title);
  if (of) {
    const [number, all] = [Number(of[1]), Number(of[2])];
    if (number >= 1 && number <= all && all <= 60) return { number, of: all };
  }
  const found = NAMED.exec(title)?.[1] ?? SIGNED.exec(title)?.[1];
  if (!found) return null;
  return { number: /^\d/.test(found) ? Number(found) : roman(found.toLowerCase()), of: null };
}

function roman(letters: string): number {
  let sum = 0;
  for (let i = 0; i < letters.length; i++) {
    const value = ROMAN[letters[i]!] ?? 0;
    sum += value < (ROMAN[letters[i + 1] ?? ''] ?? 0) ? -value : value;
  }
  return sum;
}
