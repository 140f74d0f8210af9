import { languageOf } from '../../text/language.ts';
import { contentStems, wordsOf } from '../../text/terms.ts';

/** One of several pictures, with how well it fits. */
export interface Proposal {
  /** Its number among all. */
  index: number;
  /** A share of the words that count, between 0 and 1. */
  fit: number;
  /** The words it has in common with the scene, as the scene has them. */
  shared: string[];
}

/** What fits less than this is no proposal. */
const LEAST_FIT = 0.12;

/**
 * The pictures that fit a text best, by the words they share: a word that few of them have counts for more.
 * @param candidates all that is known of each picture in words: its title, names, tags, what is said where it is seen
 * @param language BCP 47, of the text
 * @param context what is said around it, which counts a little
 */
export function proposePictures(
  text: string,
  context: string,
  candidates: readonly string[],
  language: string,
  count = 3
): Proposal[] {
  const spoken = languageOf(language);
  const stemsOf = (words: string) => contentStems(wordsOf(words), spoken);
  const known = candidates.map((c) => new Set(stemsOf(c)));
  const having = new Map<string, number>();
  for (const stems of known)
    for (const stem of stems) having.set(stem, (having.get(stem) ?? 0) + 1);
  const weight = (stem: string) => Math.log(1 + (candidates.length + 1) / (having.get(stem) ?? 1));
  const own = new Set(stemsOf(text));
  const around = new Set(stemsOf(context));
  const sum = (stems: Iterable<string>) => [...stems].reduce((total, s) => total + weight(s), 0);
  const whole = sum(own) || 1;
  const written = new Map(wordsOf(text).map((word) => [stemsOf(word)[0] ?? '', word]));
  const rated = known.map((stems, index): Proposal => {
    const shared = [...own].filter((s) => stems.has(s));
    const near = [...around].filter((s) => stems.has(s) && !own.has(s));
    // A few words that all fit are worth more than many of which a few do.
    const breadth = 1 / Math.sqrt(1 + Math.max(0, stems.size - 12) / 24);
    return {
      index,
      fit: ((sum(shared) + 0.2 * Math.min(whole, sum(near))) / whole) * breadth,
      shared: shared.map((s) => written.get(s) ?? s)
    };
  });
  return rated
    .filter(({ fit, shared }) => fit >= LEAST_FIT && shared.length > 0)
    .toSorted((a, b) => b.fit - a.fit)
    .slice(0, count);
}
