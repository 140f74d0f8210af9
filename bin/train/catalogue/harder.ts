import { seeded } from '../../../src/lib/core/seeded.ts';
import type { Item } from '../../../src/lib/core/model/item.ts';
import type { Catalogue } from './catalogue.ts';

/** Of half of what has a twin only the one or the other: what is most like it then is something else. */
export function thinned(catalogue: Catalogue, seed: number): Catalogue {
  const chance = seeded(seed);
  const gone = new Set<string>();
  for (const { video, post, relation } of catalogue.truth)
    if (relation === 'twin' && chance() < 0.5) gone.add(chance() < 0.5 ? video : post);
  const isHere = ({ id }: { id: string }): boolean => !gone.has(id);
  return {
    ...catalogue,
    videos: catalogue.videos.filter(isHere),
    posts: catalogue.posts.filter(isHere),
    truth: catalogue.truth.filter(({ video, post }) => !gone.has(video) && !gone.has(post))
  };
}

/** Without what is said in the videos, for captions cannot always be read; of every other catalogue without dates. */
export function bare(catalogue: Catalogue, i: number): Catalogue {
  const undated = (items: Catalogue['videos']) =>
    i % 2 === 0 ? items : items.map((item) => ({ ...item, published: null }));
  const isVideo = new Set(catalogue.videos.map(({ id }) => id));
  return {
    ...catalogue,
    videos: undated(catalogue.videos),
    posts: undated(catalogue.posts),
    texts: new Map([...catalogue.texts].filter(([id]) => !isVideo.has(id)))
  };
}

/** Of many series the parts are numbered on one side only: on the other each has a title of its own. */
export function unnumbered(catalogue: Catalogue, seed: number): Catalogue {
  const chance = seeded(seed);
  const sides = new Map<string, Item['kind'] | null>();
  const retitled = (item: Item): Item => {
    const [series, part] = item.title.split(PART);
    if (part === undefined) return item;
    // The video of a part comes before its post, and decides for the whole series of its channel.
    const name = `${new URL(item.url).host} ${series!.split(':')[0]}`;
    if (!sides.has(name)) {
      const drawn = chance();
      sides.set(name, drawn < 0.5 ? 'post' : drawn < 0.75 ? 'video' : null);
    }
    if (sides.get(name) !== item.kind) return item;
    const about = (catalogue.texts.get(item.id) ?? '').split(/\s+/).slice(4, 8).join(' ');
    return { ...item, title: `${series}: ${about}` };
  };
  return {
    ...catalogue,
    videos: catalogue.videos.map(retitled),
    posts: catalogue.posts.map(retitled)
  };
}
const PART = /, (?:part|Teil) \d+$/;

/**
 * Told in its own words: descriptions are short, hardly any captions can be read, and where the video says one word
 * posts say another, the same in each of them; as made words, which stand for what nobody said.
 */
export function inOwnWords(catalogue: Catalogue, seed: number): Catalogue {
  const chance = seeded(seed);
  const kept = 0.1 + 0.4 * chance();
  const others = new Map<string, string>();
  const otherWord = (word: string): string => {
    const known = others.get(word.toLowerCase());
    if (known !== undefined) return known;
    const other = chance() < kept ? word : madeWord(word);
    others.set(word.toLowerCase(), other);
    return other;
  };
  const inOther = (text: string): string => text.replace(/\p{L}{4,}/gu, otherWord);
  const texts = new Map(
    catalogue.videos.map(({ id }) => {
      const words = (catalogue.texts.get(id) ?? '').split(' ');
      return [id, words.slice(0, chance() < 0.2 ? 400 : chance() * 40).join(' ')];
    })
  );
  const posts = catalogue.posts.map((post) => {
    const told = (catalogue.texts.get(post.id) ?? '').replace(/\d+/g, (figure) =>
      chance() < 0.4 ? figure : String(Math.floor(chance() * 300))
    );
    texts.set(post.id, inOther(told));
    return { ...post, title: inOther(post.title), tags: post.tags.filter(() => chance() < 0.5) };
  });
  return { ...catalogue, posts, texts };
}

/** The letters of a word from its end: as rare as the word, and no word of any language. */
const madeWord = (word: string): string =>
  [...word.toLowerCase()]
    .reverse()
    .join('')
    .replace(/^./u, (head) => (/^\p{Lu}/u.test(word) ? head.toUpperCase() : head));
