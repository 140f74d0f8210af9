import type { Corpus } from './corpus.ts';
import type { Told } from './told.ts';
import { translate, type Dictionaries } from './translate.ts';

/** Of each item: so many of the other side are compared with it. */
const OF_POST = 9;
const OF_VIDEO = 6;
/** Words of a text that it is looked up by, the rarest first. */
const LOOKED_UP = 28;
/** What a word of a title, or a name, is worth beside one of the text. */
const [TITLE, NAME] = [2.5, 1.5];

/** Whom to compare with whom: places of videos and of posts in their lists, pair by pair. */
export interface Candidates {
  videos: Int32Array;
  posts: Int32Array;
}

/** Whether a pair is wanted, by its places. */
export type Wanted = (video: number, post: number) => boolean;

/** Those that are wanted. */
export const only = ({ videos, posts }: Candidates, isWanted: Wanted): Candidates => ({
  videos: videos.filter((video, i) => isWanted(video, posts[i]!)),
  posts: posts.filter((post, i) => isWanted(videos[i]!, post))
});

/** Videos that a word must not be said by more of to be looked up. */
const commonIn = (videos: number): number => Math.max(40, Math.min(150, videos / 10));

/**
 * Finds pairs that have rare words in common, by an index of words: never all against all. Words that many videos say
 * are not looked up.
 */
export class CandidateFinder {
  readonly #corpus: Corpus;
  readonly #ofVideos: readonly Keys[];
  readonly #ofPosts: readonly Keys[];
  readonly #nearInTime: Candidates;

  constructor(corpus: Corpus) {
    const { videos, posts, rarity } = corpus;
    this.#corpus = corpus;
    this.#ofVideos = videos.map((video) => keysOf(video, rarity));
    this.#ofPosts = posts.map((post) => keysOf(post, rarity));
    this.#nearInTime = nearInTime(videos, posts);
  }

  /**
   * @param dictionaries where given, videos are looked for in the languages of posts
   * @returns those that are wanted, each once, post by post
   */
  find(isWanted: Wanted, dictionaries?: Dictionaries): Candidates {
    const { videos } = this.#corpus;
    // A number for each pair: numbers are sorted and told apart faster than objects.
    const codes: number[] = [];
    const add = (video: number, post: number) => codes.push(post * videos.length + video);
    const { ofPosts, ofVideos } = this.#lookUp(dictionaries);
    ofPosts.each((post, video) => add(video, post));
    ofVideos.each(add);
    for (let i = 0; i < this.#nearInTime.videos.length; i++)
      add(this.#nearInTime.videos[i]!, this.#nearInTime.posts[i]!);
    const sorted = new Float64Array(codes).sort();
    const found = { videos: new Int32Array(sorted.length), posts: new Int32Array(sorted.length) };
    let count = 0;
    for (let i = 0; i < sorted.length; i++) {
      const code = sorted[i]!;
      if (code === sorted[i - 1]) continue;
      const post = Math.floor(code / videos.length);
      const video = code - post * videos.length;
      if (!isWanted(video, post)) continue;
      found.videos[count] = video;
      found.posts[count++] = post;
    }
    return { videos: found.videos.subarray(0, count), posts: found.posts.subarray(0, count) };
  }

  #lookUp(dictionaries?: Dictionaries): { ofPosts: BestOf; ofVideos: BestOf } {
    const { videos, posts, rarity, terms } = this.#corpus;
    const translated =
      dictionaries && new Set([...dictionaries.keys()].map((n) => n.split('>')[1]));
    const keys = dictionaries
      ? this.#ofVideos.map((own, at) => withTranslated(own, videos[at]!, rarity, dictionaries))
      : this.#ofVideos;
    const index = indexOf(keys, terms.size);
    const common = commonIn(videos.length);
    const sums = new Float32Array(videos.length);
    const touched = new Int32Array(videos.length);
    const ofPosts = new BestOf(posts.length, OF_POST);
    const ofVideos = new BestOf(videos.length, OF_VIDEO);
    for (let post = 0; post < posts.length; post++) {
      if (translated && !translated.has(posts[post]!.language)) continue;
      let count = 0;
      const { ids, weights } = this.#ofPosts[post]!;
      for (let k = 0; k < ids.length; k++) {
        const [from, to] = [index.starts[ids[k]!]!, index.starts[ids[k]! + 1]!];
        if (to - from > common) continue;
        const weight = weights[k]!;
        for (let i = from; i < to; i++) {
          const video = index.videos[i]!;
          if (sums[video] === 0) touched[count++] = video;
          sums[video]! += weight * index.weights[i]!;
        }
      }
      for (let i = 0; i < count; i++) {
        const video = touched[i]!;
        const sum = sums[video]!;
        ofPosts.offer(post, video, sum);
        ofVideos.offer(video, post, sum);
        sums[video] = 0;
      }
    }
    return { ofPosts, ofVideos };
  }
}

/** Of each of many owners the few others that are worth most. Worths are above 0. */
export class BestOf {
  readonly #others: Int32Array;
  readonly #worths: Float32Array;
  readonly #size: number;

  constructor(owners: number, size: number) {
    this.#size = size;
    this.#others = new Int32Array(owners * size);
    this.#worths = new Float32Array(owners * size);
  }

  offer(owner: number, other: number, worth: number): void {
    const [worths, others] = [this.#worths, this.#others];
    const from = owner * this.#size;
    let i = from + this.#size - 1;
    if (worths[i]! >= worth) return;
    while (i > from && worths[i - 1]! < worth) {
      worths[i] = worths[i - 1]!;
      others[i] = others[i - 1]!;
      i--;
    }
    worths[i] = worth;
    others[i] = other;
  }

  each(take: (owner: number, other: number, worth: number) => void): void {
    for (let i = 0; i < this.#others.length; i++)
      if (this.#worths[i]! > 0)
        take(Math.floor(i / this.#size), this.#others[i]!, this.#worths[i]!);
  }

  clear(): void {
    this.#worths.fill(0);
  }
}

/** Which videos say a word, and how much it counts in each: those of word `w` lie from `starts[w]` on. */
interface Index {
  starts: Int32Array;
  videos: Int32Array;
  weights: Float32Array;
}

function indexOf(keys: readonly Keys[], size: number): Index {
  const starts = new Int32Array(size + 1);
  for (const { ids } of keys) for (const id of ids) starts[id + 1]!++;
  for (let id = 0; id < size; id++) starts[id + 1]! += starts[id]!;
  const next = starts.slice();
  const said = new Int32Array(starts[size]!);
  const weights = new Float32Array(starts[size]!);
  for (let video = 0; video < keys.length; video++) {
    const key = keys[video]!;
    for (let k = 0; k < key.ids.length; k++) {
      const at = next[key.ids[k]!]!++;
      said[at] = video;
      weights[at] = key.weights[k]!;
    }
  }
  return { starts, videos: said, weights };
}

/** Videos that are looked at of those published next before and next after a post, and within how many days. */
const NEXT = 2;
const NEAR_DAYS = 30;

/** What came out about the same time: where no words are shared, that is all there is to go by. */
function nearInTime(videos: readonly Told[], posts: readonly Told[]): Candidates {
  const dated = videos
    .flatMap(({ day }, at) => (day === null ? [] : [{ day, at }]))
    .sort((a, b) => a.day - b.day);
  const near = { videos: [] as number[], posts: [] as number[] };
  for (const [post, { day }] of posts.entries()) {
    if (day === null) continue;
    let [low, high] = [0, dated.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (dated[middle]!.day < day) low = middle + 1;
      else high = middle;
    }
    for (let i = Math.max(0, low - NEXT); i < Math.min(low + NEXT, dated.length); i++) {
      const video = dated[i]!;
      if (Math.abs(video.day - day) > NEAR_DAYS) continue;
      near.videos.push(video.at);
      near.posts.push(post);
    }
  }
  return { videos: Int32Array.from(near.videos), posts: Int32Array.from(near.posts) };
}

/** What an item is looked up by, and how much each word counts. */
interface Keys {
  ids: readonly number[];
  weights: readonly number[];
}

/** The rarest words of one text after the other. */
const rarest = new BestOf(1, LOOKED_UP);

function keysOf({ title, names, tags, text, often }: Told, rarity: Float32Array): Keys {
  const ids: number[] = [];
  const weights: number[] = [];
  const add = (id: number, weight: number) => {
    if (weight <= 0) return;
    ids.push(id);
    weights.push(weight);
  };
  for (const id of title) add(id, TITLE * rarity[id]!);
  for (const id of names) add(id, NAME * rarity[id]!);
  for (const id of tags) add(id, rarity[id]!);
  rarest.clear();
  for (let i = 0; i < text.length; i++) {
    const rare = rarity[text[i]!]!;
    rarest.offer(0, text[i]!, rare * rare * Math.min(2, often[i]!));
  }
  rarest.each((_, id, worth) => add(id, worth));
  return { ids, weights };
}

/** The same with the words that posts in other languages have for it. */
function withTranslated(
  own: Keys,
  video: Told,
  rarity: Float32Array,
  dictionaries: Dictionaries
): Keys {
  const ids = [...own.ids];
  const weights = [...own.weights];
  for (const name of dictionaries.keys()) {
    const [from, to = ''] = name.split('>');
    if (from !== video.language) continue;
    for (const id of translate(video, to, dictionaries)?.title ?? []) {
      if (ids.includes(id)) continue;
      ids.push(id);
      weights.push(TITLE * rarity[id]!);
    }
  }
  return { ids, weights };
}
