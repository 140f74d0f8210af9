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

/** What a word takes, in characters: none is said in no time. */
const lengthOf = (word: string): number => word.length + 1.5;
/** A word is drawn out up to so many times its usual length; what is beyond is silence. */
const DRAWN_OUT = 1.7;
/** Words with times of their own below which a pace is not known. */
const FEW = 40;

/**
 * Where every word has a time of its own, each lasts until the next: the silence after it is hidden in
 * it. Ends words where they would end at the speaker's pace, so that the silence can be seen.
 * @param isStamped whether the start of a word, and of the one after it, were given
 */
export function showSilences(
  words: readonly SpokenWord[],
  isStamped: (word: SpokenWord) => boolean
): void {
  const stamped = words.filter(isStamped);
  if (stamped.length < FEW) return;
  const paces = stamped.map((w) => (w.end - w.start) / lengthOf(w.text)).sort((a, b) => a - b);
  const pace = paces[paces.length >> 1] ?? 0;
  for (const word of stamped) {
    const usual = pace * lengthOf(word.text);
    if (word.end - word.start > DRAWN_OUT * usual) word.end = word.start + 1.2 * usual;
  }
}
