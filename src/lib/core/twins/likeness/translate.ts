import type { Corpus } from './corpus.ts';
import type { Told } from './told.ts';

/** Words of one language by the words of another that stand for them, from videos to posts. */
export type Dictionary = ReadonlyMap<number, number>;

/** By the two languages, as `en>de`. */
export type Dictionaries = ReadonlyMap<string, Dictionary>;

/** Pairs from which on a dictionary of two languages is made, and in which a word must stand. */
const PAIRS = 8;
const SEEN = 2;
/** Dice coefficient from which on two words are taken to mean the same. */
const ALIKE = 0.65;

const nameOf = (video: Told, post: Told): string => `${video.language}>${post.language}`;
export const isOtherLanguage = (video: Told, post: Told): boolean =>
  video.language !== post.language && video.language !== 'und' && post.language !== 'und';

/**
 * What the words of the videos are called in the posts, as the catalogue itself shows it: words that stand in the
 * same pairs again and again (by the Dice coefficient, as Smadja, McKeown and Hatzivassiloglou 1996 align words).
 * @param pairs those that are certain, by their places in the corpus
 */
export function learnDictionaries(
  { videos, posts }: Corpus,
  pairs: readonly { video: number; post: number }[]
): Dictionaries {
  const byName = new Map<string, [Told, Told][]>();
  for (const pair of pairs) {
    const [video, post] = [videos[pair.video]!, posts[pair.post]!];
    if (!isOtherLanguage(video, post)) continue;
    const name = nameOf(video, post);
    const known = byName.get(name);
    if (known) known.push([video, post]);
    else byName.set(name, [[video, post]]);
  }
  return new Map(
    [...byName].flatMap(([name, told]) => (told.length < PAIRS ? [] : [[name, dictionaryOf(told)]]))
  );
}

function dictionaryOf(pairs: readonly (readonly [Told, Told])[]): Dictionary {
  const [ofVideo, ofPost] = [new Map<number, number>(), new Map<number, number>()];
  const together = new Map<number, Map<number, number>>();
  const count = (counts: Map<number, number>, id: number) =>
    counts.set(id, (counts.get(id) ?? 0) + 1);
  for (const [video, post] of pairs) {
    const said = new Set([...post.title, ...post.text]);
    for (const id of said) count(ofPost, id);
    // What a title says is what has to be recognised.
    for (const id of video.title) {
      count(ofVideo, id);
      const beside = together.get(id) ?? new Map<number, number>();
      for (const other of said) count(beside, other);
      together.set(id, beside);
    }
  }
  const dictionary = new Map<number, number>();
  for (const [id, beside] of together) {
    let best = ALIKE;
    for (const [other, n] of beside) {
      const alike = (2 * n) / (ofVideo.get(id)! + ofPost.get(other)!);
      if (n >= SEEN && alike > best && other !== id) {
        best = alike;
        dictionary.set(id, other);
      }
    }
  }
  return dictionary;
}

/** A video as it would be told in the language of a post, as far as its words are known. */
export function translate(video: Told, language: string, dictionaries: Dictionaries): Told | null {
  const dictionary = dictionaries.get(`${video.language}>${language}`);
  if (!dictionary) return null;
  const said = video.title.map((id) => dictionary.get(id) ?? id);
  return { ...video, title: [...new Set(said)].sort((a, b) => a - b) };
}
