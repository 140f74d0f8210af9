import { languagesOf } from './languages.ts';
import { successiveNumbers } from './successive.ts';
import { tellItem, Terms, type Told, type ToldItem } from './told.ts';

/** Characters of text that are looked at: of one item, and of a whole catalogue. */
const MOST_TEXT = 20_000;
const MOST_IN_ALL = 16_000_000;
const LEAST_TEXT = 600;

/** A catalogue as pairing compares it: what each item tells, and how rare each word is. */
export interface Corpus {
  videos: readonly Told[];
  posts: readonly Told[];
  terms: Terms;
  /** By term: 0 for what every item says, 1 for what one says alone. */
  rarity: Float32Array;
}

export function corpusOf(videos: readonly ToldItem[], posts: readonly ToldItem[]): Corpus {
  const terms = new Terms();
  const count = videos.length + posts.length;
  const most = Math.min(MOST_TEXT, Math.max(LEAST_TEXT, Math.floor(MOST_IN_ALL / (count || 1))));
  const languages = languagesOf([...videos, ...posts]);
  const [v, p] = [videos, posts].map((all) => {
    const numbers = successiveNumbers(all.map(({ item }) => item));
    return all.map((one) => {
      const told = tellItem(one, languages.get(one) ?? 'und', terms, most);
      const number = numbers.get(one.item);
      return told.part || number === undefined ? told : { ...told, part: { number, of: null } };
    });
  });
  const seen = new Float32Array(terms.size);
  for (const { title, text, names, tags } of [...v!, ...p!])
    for (const ids of [title, text, names, tags]) for (const id of ids) seen[id]!++;
  const all = Math.log(count + 1);
  const rarity = seen.map((n) => Math.max(0, 1 - Math.log(Math.max(1, n)) / all));
  return { videos: v!, posts: p!, terms, rarity };
}
