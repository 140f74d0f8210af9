import { chance as chanceOf } from '../../text/scorer.ts';
import { scoreTrees } from '../../text/trees.ts';
import { BESIDE_WIDTH, Besides } from './beside.ts';
import { BestOf, CandidateFinder, only, type Candidates, type Wanted } from './candidates.ts';
import type { Compared } from './compared.ts';
import type { Corpus } from './corpus.ts';
import { Comparer, weigh, withTitle, type Weighed } from './comparer.ts';
import { LikenessScorer } from './features.ts';
import { LikenessList, noLikeness } from './likeness.ts';
import { PAIR_MODEL, type PairModel } from './pairModel.ts';
import { daysApart, findRivals } from './rivals.ts';
import type { Told } from './told.ts';
import { isOtherLanguage, learnDictionaries, translate, type Dictionaries } from './translate.ts';

/**
 * Compares what may belong together. Time grows with the number of items, not of their pairs. Where some pairs of two
 * languages are certain, what they call things is learned from them, and all are compared once more.
 * @param refusedOf by the id of a video: ids of the posts that it is never paired with
 * @param options `keeps`: what is returned, those that may come to anything or all
 */
export function compareAll(
  corpus: Corpus,
  refusedOf: (videoId: string) => ReadonlySet<string> | undefined,
  { model = PAIR_MODEL, keeps = 'close' }: { model?: PairModel; keeps?: Comparing['keeps'] } = {}
): Compared[] {
  const comparing: Comparing = {
    corpus,
    model,
    keeps,
    videos: corpus.videos.map((told) => weigh(told, corpus)),
    posts: corpus.posts.map((told) => weigh(told, corpus))
  };
  const isOther = (video: number, post: number) =>
    isOtherLanguage(corpus.videos[video]!, corpus.posts[post]!);
  // Asked hundreds of thousands of times: by place, not by name.
  const refused = corpus.videos.map(({ item }) => refusedOf(item.id));
  const isAllowed = (video: number, post: number) =>
    !refused[video]?.has(corpus.posts[post]!.item.id);
  const finder = new CandidateFinder(corpus);
  const found = finder.find(isAllowed);
  const isOfOneLanguage = (video: number, post: number) => !isOther(video, post);
  const ofOneLanguage = compareOnce(comparing, only(found, isOfOneLanguage));
  let translated = compareOnce(comparing, only(found, isOther));
  let known = 0;
  for (let round = 0; ; round++) {
    const all = [...ofOneLanguage, ...translated];
    const weighBeside = besideRivals(all, corpus, model);
    weighBeside(isOther);
    const likely = translated.filter(({ beside }) => chanceOf(beside) >= LIKELY);
    // Where hardly more is certain than before, or so much was, nothing more is learned.
    const isLast = round === ROUNDS || known >= PLENTY || likely.length < known * MORE;
    const dictionaries = isLast ? NO_DICTIONARIES : learnDictionaries(corpus, likely);
    if (dictionaries.size === 0) {
      weighBeside(isOfOneLanguage);
      return all;
    }
    known = likely.length;
    const again = finder.find((v, p) => isOther(v, p) && isAllowed(v, p), dictionaries);
    translated = compareOnce(comparing, again, dictionaries);
  }
}
const NO_DICTIONARIES: Dictionaries = new Map();
/** From which chance on a pair may teach what words mean in another language, and how often that is done. */
const LIKELY = 0.6;
const ROUNDS = 2;
const MORE = 1.2;
const PLENTY = 500;

interface Comparing {
  corpus: Corpus;
  model: PairModel;
  keeps: 'close' | 'all';
  videos: readonly Weighed[];
  posts: readonly Weighed[];
}

/** Each pair by itself. */
function compareOnce(
  { corpus, model, videos, posts, keeps }: Comparing,
  { videos: ofVideos, posts: ofPosts }: Candidates,
  dictionaries: Dictionaries = NO_DICTIONARIES
): Compared[] {
  const translated = new Map<string, (Weighed | undefined)[]>();
  const inLanguageOf = (video: number, { language }: Told): Weighed => {
    let known = translated.get(language);
    if (!known) translated.set(language, (known = Array.from(videos, () => undefined)));
    return (known[video] ??= translateWeighed(videos[video]!, language, dictionaries, corpus));
  };
  const comparer = new Comparer(corpus);
  const count = ofVideos.length;
  const alone = new Float64Array(count);
  const apart = new Float64Array(count);
  const likenesses = new LikenessList(count);
  const likeness = noLikeness();
  const scorer = new LikenessScorer(model.alone);
  for (let i = 0; i < count; i++) {
    const [video, post] = [ofVideos[i]!, posts[ofPosts[i]!]!];
    const own = dictionaries.size > 0 ? inLanguageOf(video, post.told) : videos[video]!;
    comparer.compare(own, post, likeness);
    likenesses.set(i, likeness);
    alone[i] = scorer.score(likeness);
    apart[i] = daysApart(likeness);
  }
  const comparedAt = (at: number): Compared => ({
    video: ofVideos[at]!,
    post: ofPosts[at]!,
    likeness: likenesses.get(at),
    isClip: videos[ofVideos[at]!]!.told.isClip,
    alone: alone[at]!,
    beside: 0,
    ofVideo: -Infinity,
    ofPost: -Infinity,
    freeOfVideo: -Infinity,
    freeOfPost: -Infinity,
    isOfAnother: false,
    near: 'none'
  });
  if (keeps === 'all') return Array.from({ length: count }, (_, at) => comparedAt(at));
  const sides = [
    { owners: ofVideos, count: videos.length },
    { owners: ofPosts, count: posts.length }
  ];
  return closest(sides, alone, apart).map(comparedAt);
}

function translateWeighed(
  video: Weighed,
  language: string,
  dictionaries: Dictionaries,
  corpus: Corpus
): Weighed {
  const told = translate(video.told, language, dictionaries);
  return told ? withTitle(video, told, corpus) : video;
}

/** Of each item: so many of those that are most like it are kept, and whatever was published nearest to it. */
const CLOSEST = 3;
/** Log-odds alone below which hardly any pair is one, nor a rival that matters. */
const HOPELESS = -6;

/**
 * Places of the candidates that may come to anything: as pairs, or as the rivals of some.
 * @param sides whose each candidate is, and how many there are of these
 */
function closest(
  sides: readonly { owners: Int32Array; count: number }[],
  alone: Float64Array,
  apart: Float64Array
): number[] {
  const isKept = new Uint8Array(alone.length);
  for (const { owners, count } of sides) {
    const best = new BestOf(count, CLOSEST);
    const nearest = new Float64Array(count).fill(Infinity);
    for (let i = 0; i < owners.length; i++) {
      if (alone[i]! < HOPELESS) continue;
      const owner = owners[i]!;
      best.offer(owner, i, chanceOf(alone[i]!));
      nearest[owner] = Math.min(nearest[owner]!, apart[i]!);
    }
    best.each((_, i) => (isKept[i] = 1));
    for (let i = 0; i < owners.length; i++)
      if (alone[i]! >= HOPELESS && apart[i]! < Infinity && apart[i]! <= nearest[owners[i]!]!)
        isKept[i] = 1;
  }
  const kept: number[] = [];
  for (let i = 0; i < isKept.length; i++) if (isKept[i]) kept.push(i);
  return kept;
}

/** Log-odds beside its rivals below which a pair is not looked at further. */
const UNLIKELY = -4;

/**
 * Finds the rivals of each pair.
 * @returns weighs beside them those pairs that are asked for
 */
function besideRivals(
  all: readonly Compared[],
  corpus: Corpus,
  model: PairModel
): (isAsked: Wanted) => void {
  findRivals(all, { video: corpus.videos.length, post: corpus.posts.length });
  const besides = new Besides(all, corpus);
  const numbers = new Float64Array(BESIDE_WIDTH);
  return (isAsked) => {
    for (let i = 0; i < all.length; i++) {
      const pair = all[i]!;
      if (!isAsked(pair.video, pair.post)) continue;
      besides.read(i, numbers);
      pair.beside = scoreTrees(model.beside, numbers, UNLIKELY);
    }
  };
}
