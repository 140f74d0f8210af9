import type { Relation } from '../../model/tie.ts';
import { binned } from '../../text/scorer.ts';
import { featuresOf } from './features.ts';
import type { Compared } from './compared.ts';

/** A post that is like more videos than this is a round-up, and belongs to none. */
const ROUND_UP = 5;
/** What the best whole left over: a pair whose other half has a twin already, or is claimed by another. */
export interface LeftOver {
  pair: Compared;
  relation: Exclude<Relation, 'twin'>;
  features: string[];
}

/**
 * Whom nobody was given, and who they are most like: further videos that a post tells of, further posts about a
 * video, clips of a video that has its post.
 * @param made the pairs of the best whole
 */
export function leftOvers(all: readonly Compared[], made: readonly Compared[]): LeftOver[] {
  const [ofVideo, ofPost] = [new Map<number, Compared>(), new Map<number, Compared>()];
  for (const pair of made) {
    ofVideo.set(pair.video, pair);
    ofPost.set(pair.post, pair);
  }
  const best = { video: bestOf(all, 'video'), post: bestOf(all, 'post') };
  const found: LeftOver[] = [];
  for (const pair of all) {
    const rival = ofPost.get(pair.post) ?? ofVideo.get(pair.video);
    if (rival === pair) continue;
    const isVideoLeft = !ofVideo.has(pair.video) && best.video.get(pair.video) === pair;
    const isPostLeft = !ofPost.has(pair.post) && best.post.get(pair.post) === pair;
    if (!isVideoLeft && !isPostLeft) continue;
    const isShort = pair.isClip;
    found.push({
      pair,
      relation: isShort ? 'part-of' : isVideoLeft ? 'several-videos' : 'several-posts',
      features: [
        ...featuresOf(pair.likeness),
        binned('alone', pair.alone, ALONE),
        rival ? binned('below', rival.alone - pair.alone, BELOW) : 'below nobody',
        isVideoLeft ? 'video left' : 'post left',
        isShort ? 'clip' : 'no clip'
      ]
    });
  }
  const ofOnePost = new Map<number, number>();
  for (const { pair } of found) ofOnePost.set(pair.post, (ofOnePost.get(pair.post) ?? 0) + 1);
  // A post that nobody was given tells of several videos, or of none.
  const fewest = ({ pair, relation }: LeftOver) =>
    relation === 'several-videos' && !ofPost.has(pair.post) ? 2 : 1;
  return found.filter((left) => {
    const count = ofOnePost.get(left.pair.post)!;
    return count >= fewest(left) && count <= ROUND_UP;
  });
}
const ALONE = [-6, -4, -3, -2, -1, 0, 1, 2, 4];
const BELOW = [-2, 0, 1, 2, 3, 4.5, 6, 8, 10];

function bestOf(all: readonly Compared[], side: 'video' | 'post'): Map<number, Compared> {
  const best = new Map<number, Compared>();
  for (const pair of all) {
    const known = best.get(pair[side]);
    if (!known || pair.alone > known.alone) best.set(pair[side], pair);
  }
  return best;
}
