import { binsOf } from '../../text/scorer.ts';
import type { Corpus } from './corpus.ts';
import type { Told } from './told.ts';

/** What two items have in common, in shares and sums of rarities. */
export interface Likeness {
  /** Rarities of the words that both titles have. */
  titles: number;
  /** Of the video's title: the share that stands in the post's title; and the other way. */
  titleInTitle: number;
  titleOfPost: number;
  /** Of the video's title: the share that stands in the post's title or tells its text; and the other way. */
  titleInPost: number;
  titleInVideo: number;
  /** Cosine of what both say, or null where one of them says next to nothing. */
  texts: number | null;
  /** Rarities of the names, and of the figures, that both tell. */
  names: number;
  figures: number;
  tags: number;
  /** Days from the video to the post, or null. */
  days: number | null;
  part: 'same' | 'other' | 'one' | 'none';
  language: 'same' | 'other' | 'unknown';
  samePicture: boolean;
}

/** What is asked again and again of one item, reckoned once. */
export interface Weighed {
  told: Told;
  titleWeight: number;
  /** Terms of its text that tell it from others: of an hour of talk any word is said once. */
  key: Int32Array;
  /** Of its text: weights by term, in the order of the terms, and their length. */
  weights: Float32Array;
  norm: number;
  pictures: ReadonlySet<string>;
}

export function weigh(told: Told, { rarity }: Corpus): Weighed {
  const weights = told.often.map((often, i) => often * rarity[told.text[i]!]! ** 2);
  let square = 0;
  for (const weight of weights) square += weight * weight;
  return {
    told,
    titleWeight: sum(told.title, rarity),
    key: keyOf(told.text, weights),
    weights,
    norm: Math.sqrt(square),
    pictures: new Set(told.item.pictures.map((p) => fileOf(p.url)).filter(Boolean))
  };
}

/** Terms of a text that may tell it. */
const KEYS = 100;

/** The terms that weigh most, in ascending order. */
function keyOf(text: Int32Array, weights: Float32Array): Int32Array {
  if (text.length <= KEYS) return text;
  const least = weights.toSorted()[weights.length - KEYS]!;
  return text.filter((_, i) => weights[i]! >= least);
}

/** The name of a picture's file, without which size of it this is. */
const fileOf = (url: string): string =>
  (URL.canParse(url) ? new URL(url).pathname : url).replace(/[-_]\d+x\d+(?=\.\w+$)/, '');

const sum = (ids: Int32Array, rarity: Float32Array): number =>
  ids.reduce((all, id) => all + rarity[id]!, 0);

/** Sum of the rarities of what stands in both of two sorted lists. */
function shared(a: Int32Array, b: Int32Array, rarity: Float32Array): number {
  let [i, j, all] = [0, 0, 0];
  while (i < a.length && j < b.length) {
    const difference = a[i]! - b[j]!;
    if (difference === 0) all += rarity[a[i]!]!;
    if (difference <= 0) i++;
    if (difference >= 0) j++;
  }
  return all;
}

function cosine(a: Weighed, b: Weighed): number {
  const [x, y] = [a.told.text, b.told.text];
  let [i, j, all] = [0, 0, 0];
  while (i < x.length && j < y.length) {
    const difference = x[i]! - y[j]!;
    if (difference === 0) all += a.weights[i]! * b.weights[j]!;
    if (difference <= 0) i++;
    if (difference >= 0) j++;
  }
  return all / (a.norm * b.norm || 1);
}

/** What a video and a post have in common. Time grows with their words. */
export function compare(video: Weighed, post: Weighed, { rarity }: Corpus): Likeness {
  const [v, p] = [video.told, post.told];
  const titles = shared(v.title, p.title, rarity);
  const inPost = titles + shared(v.title, post.key, rarity);
  const inVideo = titles + shared(p.title, video.key, rarity);
  const isKnown = v.language !== 'und' && p.language !== 'und';
  return {
    titles,
    titleInTitle: titles / (video.titleWeight || 1),
    titleOfPost: titles / (post.titleWeight || 1),
    titleInPost: inPost / (video.titleWeight || 1),
    titleInVideo: inVideo / (post.titleWeight || 1),
    texts: v.hasText && p.hasText ? cosine(video, post) : null,
    names: shared(v.names, p.names, rarity),
    figures: shared(v.figures, p.figures, rarity),
    tags: shared(v.tags, p.tags, rarity),
    days: v.day === null || p.day === null ? null : p.day - v.day,
    part: partsOf(v, p),
    language: isKnown ? (v.language === p.language ? 'same' : 'other') : 'unknown',
    samePicture: haveOne(video.pictures, post.pictures)
  };
}

function haveOne(some: ReadonlySet<string>, others: ReadonlySet<string>): boolean {
  if (others.size > 0) for (const one of some) if (others.has(one)) return true;
  return false;
}

function partsOf({ part: a }: Told, { part: b }: Told): Likeness['part'] {
  if (!a && !b) return 'none';
  if (!a || !b) return 'one';
  const isSame = a.number === b.number && (a.of === null || b.of === null || a.of === b.of);
  return isSame ? 'same' : 'other';
}

const SHARES = [0, 0.15, 0.3, 0.45, 0.6, 0.75, 0.9, 0.99];
const COSINES = [0.01, 0.03, 0.06, 0.1, 0.15, 0.22, 0.32, 0.45];
const SUMS = [0.1, 0.4, 0.8, 1.2, 1.8, 2.6];
const DAYS = [-400, -60, -8, -1.1, 1.1, 4, 9, 16, 31, 90, 400];

// Between two languages the same words mean something else, and names more.
const binsFor = (l: string) => ({
  titles: binsOf(`${l}titles`, SUMS),
  titleInTitle: binsOf(`${l}title in title`, SHARES),
  titleOfPost: binsOf(`${l}title of post`, SHARES),
  titleInPost: binsOf(`${l}title in post`, SHARES),
  titleInVideo: binsOf(`${l}title in video`, SHARES),
  texts: binsOf(`${l}texts`, COSINES),
  names: binsOf(`${l}names`, SUMS),
  figures: binsOf(`${l}figures`, SUMS)
});
const BINS = { same: binsFor(''), other: binsFor('x:') };
const TAGS = binsOf('tags', SUMS);
const DAY = binsOf('days', DAYS);

/** A likeness as features of the model that was learned on pairs. */
export function featuresOf(likeness: Likeness): string[] {
  const { texts, days, part, language } = likeness;
  const bins = language === 'other' ? BINS.other : BINS.same;
  const features = [
    bins.titles(likeness.titles),
    bins.titleInTitle(likeness.titleInTitle),
    bins.titleOfPost(likeness.titleOfPost),
    bins.titleInPost(likeness.titleInPost),
    bins.titleInVideo(likeness.titleInVideo),
    texts === null ? 'texts?' : bins.texts(texts),
    bins.names(likeness.names),
    bins.figures(likeness.figures),
    TAGS(likeness.tags),
    days === null ? 'days?' : DAY(days),
    PARTS[part],
    LANGUAGES[language]
  ];
  if (likeness.samePicture) features.push('same picture');
  return features;
}
const PARTS = { same: 'part same', other: 'part other', one: 'part one', none: 'part none' };
const LANGUAGES = {
  same: 'language same',
  other: 'language other',
  unknown: 'language unknown'
};

/** Whether nothing that is compared with the one was published nearer to it, of the video, of the post. */
export type Nearness = 'both' | 'video' | 'post' | 'none';

/**
 * What speaks for a pair beside others: how much better it is than the next best of its video, and of its
 * post. Log-odds; `null` where there is no other.
 */
export function rivalFeatures(
  alone: number,
  ofVideo: number | null,
  ofPost: number | null,
  near: Nearness,
  likeness: Likeness
): string[] {
  const both = Math.min(alone - (ofVideo ?? -9), alone - (ofPost ?? -9));
  return [
    ALONE(alone),
    ofVideo === null ? 'beside video none' : BESIDE.video(alone - ofVideo),
    ofPost === null ? 'beside post none' : BESIDE.post(alone - ofPost),
    BESIDE.both(both),
    PARTS[likeness.part],
    NEAR[near].name,
    likeness.days === null ? 'days?' : NEAR[near].days(likeness.days)
  ];
}
const MARGINS = [-3, -1, -0.3, 0, 0.5, 1.2, 2, 3, 4.5, 6];
const ALONE = binsOf('alone', [-4, -2, -1, 0, 1, 2, 3, 4.5, 6, 8]);
const BESIDE = {
  video: binsOf('beside video', MARGINS),
  post: binsOf('beside post', MARGINS),
  both: binsOf('beside both', MARGINS)
};
const nearness = (near: Nearness) => ({
  name: `near ${near}`,
  days: binsOf(`near ${near} days`, DAYS)
});
const NEAR = {
  both: nearness('both'),
  video: nearness('video'),
  post: nearness('post'),
  none: nearness('none')
};
