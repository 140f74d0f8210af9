import { circumstancesOf } from '$lib/core/twins/circumstances.ts';
import { withoutCopies } from '$lib/core/twins/sameVideo.ts';
import { pairTwins } from '$lib/core/twins/pair.ts';
import { readForPairing, replaceTwins } from '$lib/data/twins.ts';

/** Pairs all items anew and writes down what changed. Heavy: runs in a worker. */
export async function pairAgain(): Promise<{ twins: number; changed: number }> {
  const { items, facts, places } = await readForPairing();
  const videos = withoutCopies(
    items.filter((item) => item.kind === 'video'),
    places
  );
  const posts = items.filter((item) => item.kind === 'post');
  return replaceTwins(pairTwins(videos, posts, circumstancesOf(facts)));
}
