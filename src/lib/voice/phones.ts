/** A sound of speech, and when it ends, in seconds of what the engine said. */
export interface Phone {
  name: string;
  end: number;
}

/** Between words, and at the ends. */
const PAUSE = 'pau';

/** Reads "pau:0.215 eh:0.312 …". */
export const readPhones = (said: string): Phone[] =>
  said.split(' ').flatMap((told) => {
    const [name = '', end] = told.split(':');
    return name && end ? [{ name, end: Number(end) }] : [];
  });

/** The sounds of words that were said one by one, with a pause after each. */
export function soundsByWord(phones: readonly Phone[]): string[][] {
  const words: string[][] = [[]];
  for (const { name } of phones)
    if (name !== PAUSE) words.at(-1)!.push(name);
    else if (words.at(-1)!.length > 0) words.push([]);
  return words.filter((sounds) => sounds.length > 0);
}

/**
 * When each word begins among the sounds of a whole sentence. Sounds change a little where words meet, so
 * both rows of sounds are laid along each other with as few differences as there can be.
 * @param words the sounds of each word as it is said by itself
 * @returns seconds, one for each word, rising
 */
export function wordStarts(
  phones: readonly Phone[],
  words: readonly (readonly string[])[]
): number[] {
  const said = phones.flatMap(({ name }, i) =>
    name === PAUSE ? [] : [{ name, start: phones[i - 1]?.end ?? 0 }]
  );
  const wanted = words.flatMap((sounds, word) =>
    sounds.map((name, i) => ({ name, word, isFirst: i === 0 }))
  );
  // The least differences up to each pair, as Levenshtein counts them.
  const rows = Array.from({ length: wanted.length + 1 }, () => new Uint16Array(said.length + 1));
  for (let k = 0; k <= said.length; k++) rows[0]![k] = k;
  for (let i = 1; i <= wanted.length; i++) {
    rows[i]![0] = i;
    for (let k = 1; k <= said.length; k++)
      rows[i]![k] = Math.min(
        rows[i - 1]![k - 1]! + (wanted[i - 1]!.name === said[k - 1]!.name ? 0 : 1),
        rows[i - 1]![k]! + 1,
        rows[i]![k - 1]! + 1
      );
  }
  const starts = new Array<number>(words.length).fill(NaN);
  for (let [i, k] = [wanted.length, said.length]; i > 0 && k > 0;) {
    const [here, diagonal] = [rows[i]![k]!, rows[i - 1]![k - 1]!];
    const { name, word, isFirst } = wanted[i - 1]!;
    if (here === diagonal + (name === said[k - 1]!.name ? 0 : 1)) {
      if (isFirst) starts[word] = said[k - 1]!.start;
      i--;
      k--;
    } else if (here === rows[i - 1]![k]! + 1) i--;
    else k--;
  }
  // A word without any sound of its own begins with the next one.
  let next = phones.at(-1)?.end ?? 0;
  for (let w = starts.length - 1; w >= 0; w--)
    next = starts[w] = Number.isNaN(starts[w]) ? next : starts[w]!;
  return starts;
}
