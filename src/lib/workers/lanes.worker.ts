import { expose } from 'comlink';
import { look } from '$lib/core/lanes/drive.ts';
import type { Lane } from '$lib/core/lanes/lane.ts';
import { rateOf, type Rate } from '$lib/core/lanes/rate.ts';
import type { LaneRecord } from '$lib/core/lanes/record.ts';
import { dropReason, inOrder, type Candidate, type DropReason } from '$lib/core/lanes/sift.ts';
import { candidatesOf } from '$lib/data/candidates.ts';
import { laneShelf } from '$lib/data/lanes.ts';

/** Things that are told of by name. */
const MOST_TOLD = 300;

/** What a lane would find as it stands. */
export interface Foreseen {
  seen: number;
  passes: number;
  /** What passes, in the order in which it would be taken. */
  passing: { id: string; title: string; published: string | null }[];
  dropped: { id: string; title: string; url: string; reason: DropReason }[];
  rate: Rate;
}

const api = {
  /** Looks at the sources of a lane and writes down what is taken and why the rest is not. */
  async look(
    lane: Lane,
    runId: string,
    now: number
  ): Promise<{ seen: number; dropped: number; found: LaneRecord[]; isBraked: boolean }> {
    const candidates = async () => candidatesOf(lane);
    const records = await look(lane, { shelf: laneShelf, candidates, now: () => now }, runId);
    const found = records.filter((r) => r.state === 'found');
    return {
      ...{ seen: records.length, dropped: records.length - found.length, found },
      isBraked: records.some((r) => r.reason?.kind === 'brake')
    };
  },

  candidates: async (lane: Lane, ids: string[]): Promise<Candidate[]> => {
    const wanted = new Set(ids);
    return (await candidatesOf(lane)).filter((c) => wanted.has(c.item.id));
  },

  /** What a lane would find, whether it is kept yet or not. Nothing is written down. */
  async foresee(lane: Lane, now: number): Promise<Foreseen> {
    const candidates = inOrder(await candidatesOf(lane), lane.sift);
    const dropped: Foreseen['dropped'] = [];
    const passing: Candidate[] = [];
    for (const candidate of candidates) {
      const reason = dropReason(candidate, lane, now);
      const { id, title, url } = candidate.item;
      if (reason) dropped.push({ id, title, url, reason });
      else passing.push(candidate);
    }
    // How much there was is asked without what was done already or is too old for a new lane.
    const wide = { ...lane, sift: { ...lane.sift, scope: 'newest-first' as const } };
    const given = candidates.filter((c) => {
      const kind = dropReason(c, wide, now)?.kind;
      return kind === undefined || kind === 'has-twin' || kind === 'in-hand';
    });
    return {
      seen: candidates.length,
      passes: passing.length,
      passing: passing
        .slice(0, MOST_TOLD)
        .map(({ item: { id, title, published } }) => ({ id, title, published })),
      dropped: dropped.slice(0, MOST_TOLD),
      rate: rateOf(
        given.map((c) => Date.parse(c.item.published ?? '')).filter(Number.isFinite),
        now
      )
    };
  }
};

export type LanesWorker = typeof api;
expose(api);
