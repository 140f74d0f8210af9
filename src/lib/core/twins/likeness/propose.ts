import type { Relation } from '../../model/tie.ts';
import { chance as chanceOf, score, type Scorer } from '../../text/scorer.ts';
import { assign } from './assign.ts';
import { BestOf, CandidateFinder, type Candidate } from './candidates.ts';
import type { Compared } from './compared.ts';
import { corpusOf, type Corpus } from './corpus.ts';
import { Comparer, featuresOf, rivalFeatures, weigh, withTitle, type Weighed } from './features.ts';
import { leftOvers } from './leftOver.ts';
import { LikenessList, noLikeness, type Likeness } from './likeness.ts';
import { reasonsFor, type Reason } from './reasons.ts';
import { daysApart, findRivals } from './rivals.ts';
import type { Told, ToldItem } from './told.ts';
import { isOtherLanguage, learnDictionaries, translate, type Dictionaries } from './translate.ts';
import weights from './pairs.weights.json' with { type: 'json' };

/** What was learned on pairs: of each by itself, beside its rivals, and of what nobody was given. */
export interface PairModel {
  alone: Scorer;
  beside: Scorer;
  leftOver: Scorer;
}
export const PAIR_MODEL: PairModel = weights;

/**
 * Compares what may belong together. Time grows with the number of items, not of their pairs. Where some pairs of two
 * languages are certain, what they call things is learned from them, and all are compared once more.
 * @param refused pairs that are left out
 * @param options `keeps`: what is returned, those that may come to anything or all
 */
export function compareAll(
  corpus: Corpus,
  refused: (videoId: string, postId: string) => boolean,
  { model = PAIR_MODEL, keeps = 'close' }: { model?: PairModel; keeps?: Comparing['keeps'] } = {}
): Compared[] {
  const comparing: Comparing = {
    corpus,
    model,
    keeps,
    videos: corpus.videos.map((told) => weigh(told, corpus)),
    posts: corpus.posts.map((told) => weigh(told, corpus))
  };
  const isOther = ({ video, post }: Candidate) =>
    isOtherLanguage(corpus.videos[video]!, corpus.posts[post]!);
  const isAllowed = ({ video, post }: Candidate) =>
    !refused(corpus.videos[video]!.item.id, corpus.posts[post]!.item.id);
  const finder = new CandidateFinder(corpus);
  const [same, other]: [Candidate[], Candidate[]] = [[], []];
  for (const candidate of finder.find())
    if (isAllowed(candidate)) (isOther(candidate) ? other : same).push(candidate);
  const ofOneLanguage = compareOnce(comparing, same);
  let translated = compareOnce(comparing, other);
  let known = 0;
  for (let round = 0; ; round++) {
    const all = [...ofOneLanguage, ...translated];
    findRivals(all, { video: corpus.videos.length, post: corpus.posts.length });
    weighBeside(translated, model);
    const likely = translated.filter(({ beside }) => chanceOf(beside) >= LIKELY);
    // Where hardly more is certain than before, or so much was, nothing more is learned.
    const isLast = round === ROUNDS || known >= PLENTY || likely.length < known * MORE;
    const dictionaries = isLast ? NO_DICTIONARIES : learnDictionaries(corpus, likely);
    if (dictionaries.size === 0) {
      weighBeside(ofOneLanguage, model);
      return all;
    }
    known = likely.length;
    const found = finder.find(dictionaries).filter(isAllowed);
    translated = compareOnce(comparing, found, dictionaries);
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
  candidates: readonly Candidate[],
  dictionaries: Dictionaries = NO_DICTIONARIES
): Compared[] {
  const translated = new Map<string, (Weighed | undefined)[]>();
  const inLanguageOf = (video: number, { language }: Told): Weighed => {
    let known = translated.get(language);
    if (!known) translated.set(language, (known = Array.from(videos, () => undefined)));
    return (known[video] ??= translateWeighed(videos[video]!, language, dictionaries, corpus));
  };
  const comparer = new Comparer(corpus);
  const compare = ({ video, post }: Candidate, likeness: Likeness) => {
    const p = posts[post]!;
    const v = dictionaries.size > 0 ? inLanguageOf(video, p.told) : videos[video]!;
    comparer.compare(v, p, likeness);
  };
  const alone = new Float64Array(candidates.length);
  const apart = new Float64Array(candidates.length);
  const likenesses = new LikenessList(candidates.length);
  const likeness = noLikeness();
  for (let i = 0; i < candidates.length; i++) {
    compare(candidates[i]!, likeness);
    likenesses.set(i, likeness);
    alone[i] = score(model.alone, featuresOf(likeness));
    apart[i] = daysApart(likeness);
  }
  const comparedAt = (at: number): Compared => ({
    video: candidates[at]!.video,
    post: candidates[at]!.post,
    likeness: likenesses.get(at),
    isClip: videos[candidates[at]!.video]!.told.isClip,
    alone: alone[at]!,
    beside: 0,
    ofVideo: -Infinity,
    ofPost: -Infinity,
    freeOfVideo: -Infinity,
    freeOfPost: -Infinity,
    isOfAnother: false,
    near: 'none'
  });
  if (keeps === 'all') return candidates.map((_, at) => comparedAt(at));
  return closest(candidates, alone, apart, videos, posts).map(comparedAt);
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
const CLOSEST = 4;

/** Places of the candidates that may come to anything: as pairs, or as the rivals of some. */
function closest(
  candidates: readonly Candidate[],
  alone: Float64Array,
  apart: Float64Array,
  videos: readonly Weighed[],
  posts: readonly Weighed[]
): number[] {
  const isKept = new Uint8Array(candidates.length);
  for (const [side, owners] of [
    ['video', videos.length],
    ['post', posts.length]
  ] as const) {
    const best = new BestOf(owners, CLOSEST);
    const nearest = new Float64Array(owners).fill(Infinity);
    for (let i = 0; i < candidates.length; i++) {
      const owner = candidates[i]![side];
      best.offer(owner, i, chanceOf(alone[i]!));
      nearest[owner] = Math.min(nearest[owner]!, apart[i]!);
    }
    best.each((_, i) => (isKept[i] = 1));
    for (let i = 0; i < candidates.length; i++)
      if (apart[i]! < Infinity && apart[i]! <= nearest[candidates[i]![side]]!) isKept[i] = 1;
  }
  const kept: number[] = [];
  for (let i = 0; i < candidates.length; i++) if (isKept[i]) kept.push(i);
  return kept;
}

/** Each pair beside its rivals. */
function weighBeside(pairs: readonly Compared[], model: PairModel): void {
  for (const pair of pairs) pair.beside = score(model.beside, rivalFeatures(pair));
}

/** A pair to look at. */
export interface Proposal {
  video: string;
  post: string;
  relation: Relation;
  isSure: boolean;
  /** Between 0 and 1. */
  chance: number;
  reasons: Reason[];
}

export interface Proposing {
  /** Pairs that the user does not want to see again: ids joined by a space, the video's first. */
  refused: ReadonlySet<string>;
  model?: PairModel;
}

/** From which chance on a pair is sure, and from which it is worth a look. */
export const SURE = 0.85;
export const DOUBTFUL = 0.12;

/**
 * Which videos and posts that nothing ties yet tell the same thing. They are assigned to each other by the best
 * whole, one to one; what is left over may belong to somebody who has a twin already.
 * @returns sure ones first, each part by its chance
 */
export function proposePairs(
  videos: readonly ToldItem[],
  posts: readonly ToldItem[],
  { refused, model = PAIR_MODEL }: Proposing
): Proposal[] {
  const corpus = corpusOf(videos, posts);
  const all = compareAll(corpus, isIn(refused), { model });
  const made = bestWhole(all);
  const left = leftOvers(all, made).flatMap(({ pair, relation, features }) => {
    const chance = chanceOf(score(model.leftOver, features));
    return chance >= LEFT_OVER ? [{ pair, relation, chance }] : [];
  });
  const shared = { video: new Map<number, Relation>(), post: new Map<number, Relation>() };
  for (const { pair, relation, chance } of left)
    if (relation !== 'part-of' && chance >= SHARED) {
      shared.video.set(pair.video, relation);
      shared.post.set(pair.post, relation);
    }
  const relationOf = ({ video, post }: Compared): Relation =>
    shared.post.get(post) ?? shared.video.get(video) ?? 'twin';
  const proposal = (pair: Compared, relation: Relation, chance: number): Proposal => ({
    video: corpus.videos[pair.video]!.item.id,
    post: corpus.posts[pair.post]!.item.id,
    relation,
    isSure: relation === 'twin' && chance >= SURE && !pair.isOfAnother,
    chance,
    reasons: reasonsFor(pair, corpus)
  });
  return [
    ...made.map((pair) => proposal(pair, relationOf(pair), chanceOf(pair.beside))),
    ...left.map(({ pair, relation, chance }) => proposal(pair, relation, chance))
  ].sort((a, b) => Number(b.isSure) - Number(a.isSure) || b.chance - a.chance);
}

/** Whether a pair is among some: without a name for each of hundreds of thousands. */
function isIn(pairs: ReadonlySet<string>): (video: string, post: string) => boolean {
  const ofVideo = new Map<string, Set<string>>();
  for (const pair of pairs) {
    const [video = '', post = ''] = pair.split(' ');
    ofVideo.set(video, (ofVideo.get(video) ?? new Set()).add(post));
  }
  return (video, post) => ofVideo.get(video)?.has(post) ?? false;
}

/** Those that together are worth most, one to one. */
export const bestWhole = (all: readonly Compared[]): Compared[] =>
  assign(
    all.map(({ video, post, beside }) => ({ left: video, right: post, worth: beside - LEAST }))
  ).map((at) => all[at]!);

/** From which chance on something that is left over is shown. */
const LEFT_OVER = 0.4;
/** From which on whoever it is like is no longer the twin of one alone. */
const SHARED = 0.65;
const LEAST = Math.log(DOUBTFUL / (1 - DOUBTFUL));
