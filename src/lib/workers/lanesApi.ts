import { discover, type Discovered } from '$lib/core/lanes/runner.ts';
import { onChange } from '$lib/data/changes.ts';
import type { Lane } from '$lib/core/lanes/lane.ts';
import { rateOf, type Rate } from '$lib/core/lanes/rate.ts';
import {
  avoidsLikelyTwins,
  dropReason,
  inOrder,
  type Candidate,
  type DropReason
} from '$lib/core/lanes/filter.ts';
import {
  suggestWords,
  type SuggestionKind,
  type WordSuggestion
} from '$lib/core/lanes/suggestWords.ts';
import { candidatesOf } from '$lib/data/candidates.ts';
import { laneStore } from '$lib/data/lanes.ts';
import { surePairs } from './surePairs.ts';

/** What the sources gave, though it needs nothing made of it any more. */
const GIVEN: ReadonlySet<DropReason['kind']> = new Set(['has-twin', 'likely-twin', 'in-hand']);
/** Things that are told of by name. */
const MAX_TOLD = 300;

/** What a lane would find as it stands. */
export interface Foreseen {
  seen: number;
  passes: number;
  /** What passes, in the order in which it would be taken. */
  passing: { id: string; title: string; published: string | null }[];
  dropped: { id: string; title: string; url: string; reason: DropReason }[];
  rate: Rate;
}

/**
 * Candidates for the forms of a lane, which ask at every change of a field: they are kept under all
 * that they depend on, until the catalogue changes.
 */
const kept = new Map<string, Candidate[]>();
onChange(['items', 'bodies', 'twins', 'outbox', 'places', 'playlists'], () => kept.clear());

async function foreseenCandidates(lane: Lane): Promise<Candidate[]> {
  const { source, filter } = lane;
  const countsWords = filter.fewestWords !== null || filter.mostWords !== null;
  const key = JSON.stringify([source.places, source.playlists, countsWords]);
  const candidates = kept.get(key) ?? (await candidatesOf(lane));
  if (kept.size > 8) kept.clear();
  kept.set(key, candidates);
  return candidates;
}

/** What would be made twice, until what that depends on changes. */
let sure: ReturnType<typeof surePairs> | null = null;
onChange(['items', 'bodies', 'details', 'twins', 'ties'], () => (sure = null));

/** Looks for untied other halves where the lane would make them, which takes seconds in a large catalogue. */
async function withLikelyTwins(
  lane: Lane,
  candidates: Candidate[],
  now: number
): Promise<Candidate[]> {
  if (!avoidsLikelyTwins(lane)) return candidates;
  if (!candidates.some((candidate) => dropReason(candidate, lane, now) === null)) return candidates;
  sure ??= surePairs();
  const others = await sure.catch((error: unknown) => {
    sure = null;
    throw error;
  });
  return candidates.map((c) => ({ ...c, likelyOther: others.get(c.item.id)?.title ?? null }));
}

export const lanesApi = {
  /** Looks at the sources of a lane and writes down what is taken and why the rest is not. */
  async discover(lane: Lane, runId: string, now: number): Promise<Discovered> {
    const candidates = await withLikelyTwins(lane, await candidatesOf(lane), now);
    return discover(lane, candidates, laneStore, runId, now);
  },

  /** One item as a lane sees it, or undefined where its sources do not have it. */
  candidate: async (lane: Lane, itemId: string): Promise<Candidate | undefined> =>
    (await foreseenCandidates(lane)).find((c) => c.item.id === itemId),

  /** What the sources of a lane say together with some words, or most often. */
  suggest: async (
    lane: Lane,
    given: readonly string[],
    kind: SuggestionKind
  ): Promise<WordSuggestion[]> => {
    const candidates = await foreseenCandidates(lane);
    return suggestWords(
      candidates.map((candidate) => candidate.item),
      given,
      kind
    );
  },

  /** What a lane would find, whether it is kept yet or not. Nothing is written down. */
  async foresee(lane: Lane, now: number): Promise<Foreseen> {
    const found = await withLikelyTwins(lane, await foreseenCandidates(lane), now);
    const candidates = inOrder(found, lane.filter);
    const dropped: Foreseen['dropped'] = [];
    const passing: Candidate[] = [];
    for (const candidate of candidates) {
      const reason = dropReason(candidate, lane, now);
      const { id, title, url } = candidate.item;
      if (reason) dropped.push({ id, title, url, reason });
      else passing.push(candidate);
    }
    // How much there was is asked without what was done already or is too old for a new lane.
    const wide = { ...lane, filter: { ...lane.filter, scope: 'newest-first' as const } };
    const given = candidates.filter((c) => {
      const kind = dropReason(c, wide, now)?.kind;
      return kind === undefined || GIVEN.has(kind);
    });
    return {
      seen: candidates.length,
      passes: passing.length,
      passing: passing
        .slice(0, MAX_TOLD)
        .map(({ item: { id, title, published } }) => ({ id, title, published })),
      dropped: dropped.slice(0, MAX_TOLD),
      rate: rateOf(
        given.map((c) => Date.parse(c.item.published ?? '')).filter(Number.isFinite),
        now
      )
    };
  }
};

export type LanesApi = typeof lanesApi;
