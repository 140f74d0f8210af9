import type { Corpus } from './corpus.ts';
import type { Likeness } from './likeness.ts';
import type { Told } from './told.ts';

/**
 * What is asked again and again of one item, reckoned once. Its terms lie in one list, each kind after the other:
 * what is scattered in memory takes longer to fetch than to compare.
 */
export interface Weighed {
  told: Told;
  /** Terms of its title, its names, its figures, its tags, and its text. */
  ids: Int32Array;
  /** Of the text by how much they tell of it, of the others their rarity. */
  weights: Float32Array;
  /** Where each kind ends in the two lists. */
  titleEnd: number;
  namesEnd: number;
  figuresEnd: number;
  tagsEnd: number;
  titleWeight: number;
  /** What a term of its text weighs at least to tell it from others: of an hour of talk any word is said once. */
  keyWeight: number;
  /** Length of its text as a vector. */
  norm: number;
  pictures: ReadonlySet<string> | null;
  day: number;
  language: string;
  hasText: boolean;
}

export function weigh(told: Told, { rarity }: Corpus): Weighed {
  const { title, names, figures, tags, text, often } = told;
  const titleEnd = title.length;
  const namesEnd = titleEnd + names.length;
  const figuresEnd = namesEnd + figures.length;
  const tagsEnd = figuresEnd + tags.length;
  const ids = new Int32Array(tagsEnd + text.length);
  ids.set(title);
  ids.set(names, titleEnd);
  ids.set(figures, namesEnd);
  ids.set(tags, figuresEnd);
  ids.set(text, tagsEnd);
  const weights = new Float32Array(ids.length);
  let [titleWeight, square] = [0, 0];
  for (let i = 0; i < tagsEnd; i++) {
    weights[i] = rarity[ids[i]!]!;
    if (i < titleEnd) titleWeight += weights[i]!;
  }
  for (let i = 0; i < text.length; i++) {
    weights[tagsEnd + i] = often[i]! * rarity[text[i]!]! ** 2;
    square += weights[tagsEnd + i]! ** 2;
  }
  const pictures = told.item.pictures.map((p) => fileOf(p.url)).filter(Boolean);
  return {
    told,
    ids,
    weights,
    titleEnd,
    namesEnd,
    figuresEnd,
    tagsEnd,
    titleWeight,
    keyWeight: keyWeightOf(weights, tagsEnd),
    norm: Math.sqrt(square),
    pictures: pictures.length > 0 ? new Set(pictures) : null,
    day: told.day ?? NaN,
    language: told.language,
    hasText: told.hasText
  };
}

/** The same under another title. */
export function withTitle(weighed: Weighed, told: Told, { rarity }: Corpus): Weighed {
  const { titleEnd } = weighed;
  const by = told.title.length - titleEnd;
  const ids = new Int32Array(weighed.ids.length + by);
  const weights = new Float32Array(ids.length);
  ids.set(told.title);
  for (const [i, id] of told.title.entries()) weights[i] = rarity[id]!;
  ids.set(weighed.ids.subarray(titleEnd), titleEnd + by);
  weights.set(weighed.weights.subarray(titleEnd), titleEnd + by);
  return {
    ...weighed,
    told,
    ids,
    weights,
    titleEnd: titleEnd + by,
    namesEnd: weighed.namesEnd + by,
    figuresEnd: weighed.figuresEnd + by,
    tagsEnd: weighed.tagsEnd + by,
    titleWeight: weights.subarray(0, titleEnd + by).reduce((all, weight) => all + weight, 0)
  };
}

/** Terms of a text that may tell it. */
const KEYS = 100;

/** What those that weigh most weigh at least. */
function keyWeightOf(weights: Float32Array, from: number): number {
  const count = weights.length - from;
  return count <= KEYS ? 0 : weights.slice(from).sort()[count - KEYS]!;
}

/** The name of a picture's file, without which size of it this is. */
const fileOf = (url: string): string =>
  (URL.canParse(url) ? new URL(url).pathname : url).replace(/[-_]\d+x\d+(?=\.\w+$)/, '');

/** What a post says a word as. */
const [IN_TITLE, IN_KEY, AS_NAME, AS_FIGURE, AS_TAG] = [1, 2, 4, 8, 16];

/**
 * Compares videos with posts. What one post says is marked by term, so that of each video that is compared with it
 * only its own words are read; best asked post by post.
 */
export class Comparer {
  readonly #rarity: Float32Array;
  readonly #marks: Uint8Array;
  /** By term: what it weighs in the post's text. */
  readonly #weights: Float32Array;
  #post: Weighed | null = null;

  constructor({ rarity }: Corpus) {
    this.#rarity = rarity;
    this.#marks = new Uint8Array(rarity.length);
    this.#weights = new Float32Array(rarity.length);
  }

  /**
   * What a video and a post have in common. Time grows with the words of the video.
   * @param likeness where it is told: hundreds of thousands of pairs are compared
   */
  compare(video: Weighed, post: Weighed, likeness: Likeness): void {
    if (post !== this.#post) this.#mark(post);
    const marks = this.#marks;
    const { ids, weights, titleEnd, tagsEnd, keyWeight } = video;
    let [titles, inPost] = [0, 0];
    for (let i = 0; i < titleEnd; i++) {
      const mark = marks[ids[i]!]!;
      if (mark & IN_TITLE) titles += weights[i]!;
      if (mark & IN_KEY) inPost += weights[i]!;
    }
    let [inVideo, products] = [0, 0];
    for (let i = tagsEnd; i < ids.length; i++) {
      const id = ids[i]!;
      products += weights[i]! * this.#weights[id]!;
      if (marks[id]! & IN_TITLE && weights[i]! >= keyWeight) inVideo += this.#rarity[id]!;
    }
    const [of, ofPost] = [video.titleWeight || 1, post.titleWeight || 1];
    likeness.titles = titles;
    likeness.titleInTitle = titles / of;
    likeness.titleOfPost = titles / ofPost;
    likeness.titleInPost = (titles + inPost) / of;
    likeness.titleInVideo = (titles + inVideo) / ofPost;
    likeness.texts = video.hasText && post.hasText ? products / (video.norm * post.norm || 1) : NaN;
    likeness.names = this.#shared(video, titleEnd, video.namesEnd, AS_NAME);
    likeness.figures = this.#shared(video, video.namesEnd, video.figuresEnd, AS_FIGURE);
    likeness.tags = this.#shared(video, video.figuresEnd, tagsEnd, AS_TAG);
    likeness.days = post.day - video.day;
    likeness.part = partsOf(video.told, post.told);
    likeness.language = languagesOf(video.language, post.language);
    likeness.samePicture = haveOne(video.pictures, post.pictures);
  }

  /** Sum of what those terms of a video weigh that the post says so. */
  #shared({ ids, weights }: Weighed, from: number, to: number, mark: number): number {
    let all = 0;
    for (let i = from; i < to; i++) if (this.#marks[ids[i]!]! & mark) all += weights[i]!;
    return all;
  }

  #mark(post: Weighed): void {
    const marks = this.#marks;
    const before = this.#post?.ids ?? [];
    for (const id of before) {
      marks[id] = 0;
      this.#weights[id] = 0;
    }
    const { ids, weights, titleEnd, namesEnd, figuresEnd, tagsEnd, keyWeight } = post;
    for (let i = 0; i < titleEnd; i++) marks[ids[i]!]! |= IN_TITLE;
    for (let i = titleEnd; i < namesEnd; i++) marks[ids[i]!]! |= AS_NAME;
    for (let i = namesEnd; i < figuresEnd; i++) marks[ids[i]!]! |= AS_FIGURE;
    for (let i = figuresEnd; i < tagsEnd; i++) marks[ids[i]!]! |= AS_TAG;
    for (let i = tagsEnd; i < ids.length; i++) {
      if (weights[i]! >= keyWeight) marks[ids[i]!]! |= IN_KEY;
      this.#weights[ids[i]!] = weights[i]!;
    }
    this.#post = post;
  }
}

function languagesOf(a: string, b: string): Likeness['language'] {
  if (a === 'und' || b === 'und') return 'unknown';
  return a === b ? 'same' : 'other';
}

function haveOne(some: ReadonlySet<string> | null, others: ReadonlySet<string> | null): boolean {
  if (some && others) for (const one of some) if (others.has(one)) return true;
  return false;
}

function partsOf({ part: a }: Told, { part: b }: Told): Likeness['part'] {
  if (!a && !b) return 'none';
  if (!a || !b) return 'one';
  const isSame = a.number === b.number && (a.of === null || b.of === null || a.of === b.of);
  return isSame ? 'same' : 'other';
}
