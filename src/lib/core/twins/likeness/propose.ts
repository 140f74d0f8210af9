import type { Relation } from '../../model/tie.ts';
import { chance as chanceOf, score } from '../../text/scorer.ts';
import { assign } from './assign.ts';
import { compareAll } from './compareAll.ts';
import type { Compared } from './compared.ts';
import { corpusOf } from './corpus.ts';
import { leftOvers } from './leftOver.ts';
import { PAIR_MODEL, type PairModel } from './pairModel.ts';
import { reasonsFor, type Reason } from './reasons.ts';
import type { ToldItem } from './told.ts';

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
export const SURE = 0.7;
export const DOUBTFUL = 0.09;

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
  const all = compareAll(corpus, refusalsBy(refused), { model });
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

/** Posts by the video that they are refused to. */
function refusalsBy(pairs: ReadonlySet<string>): (video: string) => Set<string> | undefined {
  const ofVideo = new Map<string, Set<string>>();
  for (const pair of pairs) {
    const [video = '', post = ''] = pair.split(' ');
    ofVideo.set(video, (ofVideo.get(video) ?? new Set()).add(post));
  }
  return (video) => ofVideo.get(video);
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
