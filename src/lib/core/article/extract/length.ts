export const LENGTH_NAMES = ['short', 'medium', 'long'] as const;
export type LengthName = (typeof LENGTH_NAMES)[number];
/** A length by its name, or as words of the body in a hundred words said. */
export type ArticleLength = LengthName | number;
/** The least and the most that can be asked for in a hundred. */
export const LENGTH_RANGE = { least: 5, most: 100 };

/** Share of the talk, fewest and most words of each length, and what is not taken even where there is room. */
const LENGTHS: Record<
  LengthName,
  { share: number; least: number; most: number; mostMustNot: number }
> = {
  short: { share: 0.2, least: 110, most: 420, mostMustNot: 0.45 },
  medium: { share: 0.45, least: 200, most: 1300, mostMustNot: 0.45 },
  long: { share: 1, least: 0, most: Infinity, mostMustNot: 0.8 }
};

/** Words that the body may have at a length, for a talk of so many. */
export const wordsWanted = (talkWords: number, length: ArticleLength): number => {
  if (typeof length === 'number') return Math.round((talkWords * length) / 100);
  const { share, least, most } = LENGTHS[length];
  return Math.round(Math.min(most, Math.max(least, talkWords * share)));
};

/** Nearly all of a talk cannot be had without what an editor would rather leave out. */
export function mostMustNot(length: ArticleLength): number {
  if (typeof length !== 'number') return LENGTHS[length].mostMustNot;
  const { medium, long } = LENGTHS;
  const part = Math.max(0, length / 100 - medium.share) / (long.share - medium.share);
  return medium.mostMustNot + part * (long.mostMustNot - medium.mostMustNot);
}

/** Words a minute that adults read silently (Brysbaert 2019: 238 in English non-fiction). */
const READING_PACE = 238;

export const readingMinutes = (words: number): number => words / READING_PACE;

export interface LengthEstimate {
  /** About how many words the body would have. */
  words: number;
  /** Minutes it takes to read. */
  minutes: number;
}

/** About how long the body would be at a length. */
export function estimateLength(
  { talkWords, worthWords }: { talkWords: number; worthWords: number },
  length: ArticleLength
): LengthEstimate {
  const words = Math.min(worthWords, wordsWanted(talkWords, length));
  return { words, minutes: readingMinutes(words) };
}
