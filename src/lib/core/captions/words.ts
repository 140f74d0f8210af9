import type { Cue } from './cue.ts';

/** One word as it was said, with its punctuation, and its seconds. */
export interface SpokenWord {
  text: string;
  start: number;
  end: number;
  /** Which cue it stood in. */
  cue: number;
}

/**
 * The words of a cue with the seconds at which each is said: by the stamps where there are some,
 * else spread over the cue by their length in characters.
 */
export function wordsOfCue(cue: Cue, index: number): SpokenWord[] {
  const stretches = [{ at: cue.start, offset: 0 }, ...(cue.stamps ?? [])].filter(
    (s, i, all) => i === 0 || (s.at >= (all[i - 1]?.at ?? 0) && s.at <= cue.end)
  );
  return stretches.flatMap(({ at, offset }, i) => {
    const next = stretches[i + 1];
    return spread(cue.text.slice(offset, next?.offset), at, next?.at ?? cue.end, index);
  });
}

const spread = (text: string, start: number, end: number, cue: number): SpokenWord[] =>
  spreadWords(partsOf(text), start, end, cue);

/** Words by the spaces between them; scripts without spaces are cut at the ends of sentences. */
const partsOf = (text: string): string[] =>
  text.split(/\s+|(?<=[。！？])(?![。！？」』）])/).filter(Boolean);

/** Words over a stretch of time, each as long as its share of the characters. */
export function spreadWords(
  texts: readonly string[],
  start: number,
  end: number,
  cue: number
): SpokenWord[] {
  const total = texts.reduce((sum, word) => sum + word.length + 1, 0);
  let said = 0;
  return texts.map((word) => {
    const from = start + ((end - start) * said) / total;
    said += word.length + 1;
    return { text: word, start: from, end: start + ((end - start) * said) / total, cue };
  });
}

/** A word without its punctuation, in lower case, with straight apostrophes. */
export const bare = (word: string): string =>
  // Most words are bare already, and the look that tells is cheap.
  /^[a-z]+$/.test(word)
    ? word
    : word
        .toLowerCase()
        .replaceAll('’', "'")
        .replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '');
