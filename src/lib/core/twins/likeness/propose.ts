import type { Relation } from '../../model/tie.ts';
import { chance as chanceOf, score, type Scorer } from '../../text/scorer.ts';
import { assign } from './assign.ts';
import { BestOf, CandidateFinder, type Candidate } from './candidates.ts';
import type { Compared } from './compared.ts';
import { corpusOf, type Corpus } from './corpus.ts';
import {
  Comparer,
  featuresOf,
  rivalFeatures,
  weigh,
  withTitle,
  type Likeness,
  type Weighed
} from './features.ts';
import { isClip, leftOvers } from './leftOver.ts';
import { reasonsFor, type Reason } from './reasons.ts';
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
  const candidates = finder.find().filter(isAllowed);
  const ofOneLanguage = compareOnce(
    comparing,
    candidates.filter((c) => !isOther(c))
  );
  let translated = compareOnce(comparing, candidates.filter(isOther));
  let known = 0;
  for (let round = 0; ; round++) {
    const all = besideRivals([...ofOneLanguage, ...translated], comparing);
    const likely = all.filter((pair) => isOther(pair) && chanceOf(pair.beside) >= LIKELY);
    // Where hardly more is certain than before, nothing more is learned.
    if (round === ROUNDS || likely.length < known * MORE) return all;
    known = likely.length;
    const dictionaries = learnDictionaries(corpus, likely);
    if (dictionaries.size === 0) return all;
    const found = finder.find(dictionaries).filter(isAllowed);
    translated = compareOnce(comparing, found, dictionaries);
  }
}
/** From which chance on a pair may teach what words mean in another language, and how often that is done. */
const LIKELY = 0.6;
const ROUNDS = 2;
const MORE = 1.2;

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
  dictionaries: Dictionaries = new Map()
): Compared[] {
  const translated = new Map<string, (Weighed | undefined)[]>();
  const inLanguageOf = (video: number, { language }: Told): Weighed => {
    let known = translated.get(language);
    if (!known) translated.set(language, (known = Array.from(videos, () => undefined)));
    return (known[video] ??= translateWeighed(videos[video]!, language, dictionaries, corpus));
  };
  const comparer = new Comparer(corpus);
  const likenessOf = ({ video, post }: Candidate): Likeness => {
    const p = posts[post]!;
    return comparer.compare(
      dictionaries.size > 0 ? inLanguageOf(video, p.told) : videos[video]!,
      p
    );
  };
  const alone = new Float64Array(candidates.length);
  const apart = new Float64Array(candidates.length);
  for (let i = 0; i < candidates.length; i++) {
    const likeness = likenessOf(candidates[i]!);
    alone[i] = score(model.alone, featuresOf(likeness));
    apart[i] = daysApart(likeness);
  }
  // All of them with all that they have in common would take hundreds of megabytes.
  const kept =
    keeps === 'all' ? candidates.keys() : closest(candidates, alone, apart, videos, posts);
  return Array.from(kept, (at): Compared => {
    const { video, post } = candidates[at]!;
    return {
      video,
      post,
      likeness: likenessOf(candidates[at]!),
      alone: alone[at]!,
      beside: 0,
      ofVideo: null,
      ofPost: null,
      near: 'none'
    };
  });
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
  return [...candidates.keys()].filter((i) => isKept[i]);
}

/** The best of one item, the next best, and the days to what was published next to it. */
interface Best {
  pair: Compared | null;
  alone: number;
  second: number;
  nearest: number;
}

/** Each pair beside the best others of its video and of its post. */
function besideRivals(all: Compared[], { model, videos, posts }: Comparing): Compared[] {
  for (const pair of all) pair.near = 'none';
  for (const side of ['video', 'post'] as const) {
    const bests = Array.from(side === 'video' ? videos : posts, (): Best => ({
      pair: null,
      alone: -Infinity,
      second: -Infinity,
      nearest: Infinity
    }));
    for (const pair of all) {
      const best = bests[pair[side]]!;
      if (pair.alone > best.alone) {
        best.second = best.alone;
        best.alone = pair.alone;
        best.pair = pair;
      } else if (pair.alone > best.second) best.second = pair.alone;
      best.nearest = Math.min(best.nearest, daysApart(pair.likeness));
    }
    for (const pair of all) {
      const best = bests[pair[side]]!;
      const other = pair === best.pair ? best.second : best.alone;
      if (side === 'video') pair.ofVideo = Number.isFinite(other) ? other : null;
      else pair.ofPost = Number.isFinite(other) ? other : null;
      if (daysApart(pair.likeness) <= best.nearest)
        pair.near = pair.near === 'none' ? side : 'both';
    }
  }
  for (const pair of all)
    pair.beside = score(
      model.beside,
      rivalFeatures(pair.alone, pair.ofVideo, pair.ofPost, pair.near, pair.likeness)
    );
  return all;
}

const daysApart = ({ days }: Likeness): number => (days === null ? Infinity : Math.abs(days));

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
  const all = compareAll(corpus, (v, p) => refused.has(`${v} ${p}`), { model });
  const made = bestWhole(all);
  const left = leftOvers(all, made, corpus).flatMap(({ pair, relation, features }) => {
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
    isSure: relation === 'twin' && chance >= SURE && !isClipOfAnother(pair, corpus),
    chance,
    reasons: reasonsFor(pair, corpus)
  });
  return [
    ...made.map((pair) => proposal(pair, relationOf(pair), chanceOf(pair.beside))),
    ...left.map(({ pair, relation, chance }) => proposal(pair, relation, chance))
  ].sort((a, b) => Number(b.isSure) - Number(a.isSure) || b.chance - a.chance);
}

/** Whether a clip took the place of the video that it was cut from. */
function isClipOfAnother({ video, alone, ofPost }: Compared, { videos }: Corpus): boolean {
  return isClip(videos[video]!.item) && ofPost !== null && ofPost > alone - CLOSE;
}
/** Log-odds. */
const CLOSE = 6;

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
