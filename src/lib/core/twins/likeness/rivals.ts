import { Bests } from './bests.ts';
import type { Compared } from './compared.ts';
import type { Likeness } from './likeness.ts';

type Side = 'video' | 'post';

/** How often the sides tell each other what they could have instead. */
const SWEEPS = 6;

/** By how much less a clip is a rival of the video that it was taken from: it says what that one says. Log-odds. */
const CLIP = 8;
/** By how much at most the video that a clip was taken from is less like the post. Log-odds. */
const CLOSE = 6;

/**
 * Finds the rivals of each pair: the next best of its video and of its post, and what these come to once their other halves
 * have what is best for them. That is told from pair to pair as in the max-product algorithm for the heaviest matching
 * (Bayati, Shah and Sharma 2008): where a rival belongs to somebody else, hardly anything is left of it.
 * @param counts how many videos and posts there are
 */
export function findRivals(all: readonly Compared[], counts: Record<Side, number>): void {
  const alone = new Float64Array(all.length);
  const owners = { video: new Int32Array(all.length), post: new Int32Array(all.length) };
  const apart = new Float64Array(all.length);
  const bestWhole = new Float64Array(counts.post).fill(-Infinity);
  for (const { post, isClip, alone: own } of all)
    if (!isClip) bestWhole[post] = Math.max(bestWhole[post]!, own);
  for (let i = 0; i < all.length; i++) {
    const pair = all[i]!;
    pair.isOfAnother = pair.isClip && bestWhole[pair.post]! > pair.alone - CLOSE;
    alone[i] = pair.alone - (pair.isOfAnother ? CLIP : 0);
    owners.video[i] = pair.video;
    owners.post[i] = pair.post;
    apart[i] = daysApart(pair.likeness);
  }
  const others = {
    video: new Bests(alone, owners.video, counts.video),
    post: new Bests(alone, owners.post, counts.post)
  };
  // What a pair is worth to its video, beyond what its post could have else; and the other way.
  let worth: Record<Side, Float64Array> = { video: alone, post: alone };
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    const instead = {
      video: new Bests(worth.video, owners.video, counts.video),
      post: new Bests(worth.post, owners.post, counts.post)
    };
    worth = { video: less(alone, instead.post), post: less(alone, instead.video) };
  }
  const free = {
    video: new Bests(worth.video, owners.video, counts.video),
    post: new Bests(worth.post, owners.post, counts.post)
  };
  const isNearest = {
    video: nearest(apart, owners.video, counts.video),
    post: nearest(apart, owners.post, counts.post)
  };
  for (let i = 0; i < all.length; i++) {
    const pair = all[i]!;
    pair.ofVideo = others.video.beside(i);
    pair.ofPost = others.post.beside(i);
    pair.freeOfVideo = free.video.beside(i);
    pair.freeOfPost = free.post.beside(i);
    const [v, p] = [isNearest.video[i]!, isNearest.post[i]!];
    pair.near = v ? (p ? 'both' : 'video') : p ? 'post' : 'none';
  }
}

/** Without what else could be had, which is nothing at least. */
function less(worths: Float64Array, others: Bests): Float64Array {
  const left = new Float64Array(worths.length);
  for (let i = 0; i < worths.length; i++) left[i] = worths[i]! - Math.max(0, others.beside(i));
  return left;
}

/** Of each pair: whether nothing else of the same owner was published nearer to it. */
function nearest(apart: Float64Array, owners: Int32Array, count: number): Uint8Array {
  const least = new Float64Array(count).fill(Infinity);
  for (let i = 0; i < apart.length; i++)
    least[owners[i]!] = Math.min(least[owners[i]!]!, apart[i]!);
  const isNearest = new Uint8Array(apart.length);
  for (let i = 0; i < apart.length; i++) isNearest[i] = Number(apart[i]! <= least[owners[i]!]!);
  return isNearest;
}

/** Days between the two, whichever came first; no end of them where one says nothing of it. */
export const daysApart = ({ days }: Likeness): number =>
  Number.isNaN(days) ? Infinity : Math.abs(days);
