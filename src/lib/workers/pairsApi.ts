import { proposePairs, type Proposal } from '$lib/core/twins/likeness/propose.ts';
import { readUnpaired } from '$lib/data/unpaired.ts';

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
  }
};

export type PairsApi = typeof pairsApi;
