import type { Item } from '$lib/core/model/item.ts';
import { proposePairs, type Proposal } from '$lib/core/twins/likeness/propose.ts';
import { readUnpaired } from '$lib/data/unpaired.ts';
import { surePairs } from './surePairs.ts';

export interface Proposed {
  proposals: Proposal[];
  /** How many have no other half. */
  videos: number;
  posts: number;
}

export const pairsApi = {
  /** Which videos and posts without another half tell the same thing. */
  async propose(): Promise<Proposed> {
    const { videos, posts, refused } = await readUnpaired();
    const start = performance.now();
    const proposals = proposePairs(videos, posts, { refused });
    performance.measure('propose pairs', { start });
    return { proposals, videos: videos.length, posts: posts.length };
  },

  /** Of some videos or posts: the other halves that surely are here already, though nothing ties them yet, by id. */
  async surelyPaired(ids: readonly string[]): Promise<Map<string, Item>> {
    const others = await surePairs();
    return new Map(
      ids.flatMap((id): [string, Item][] => (others.has(id) ? [[id, others.get(id)!]] : []))
    );
  }
};

export type PairsApi = typeof pairsApi;
