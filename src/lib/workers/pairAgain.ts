import type { Item } from '$lib/core/model/item.ts';
import type { Baseline } from '$lib/core/model/baseline.ts';
import type { Twin } from '$lib/core/model/twin.ts';
import { circumstancesOf } from '$lib/core/twins/circumstances.ts';
import { nextBaseline, type Remembered } from '$lib/core/twins/drift.ts';
import { withoutCopies } from '$lib/core/twins/sameVideo.ts';
import { pairTwins } from '$lib/core/twins/pair.ts';
import { putBaselines } from '$lib/data/baselines.ts';
import { readForPairing, replaceTwins } from '$lib/data/twins.ts';

/** Pairs all items anew and writes down what changed. Heavy: runs in a worker. */
export async function pairAgain(): Promise<{ twins: number; changed: number }> {
  const { items, facts, places } = await readForPairing();
  const videos = withoutCopies(
    items.filter((item) => item.kind === 'video'),
    places
  );
  const posts = items.filter((item) => item.kind === 'post');
  const circumstances = circumstancesOf(facts);
  const twins = pairTwins(videos, posts, circumstances);
  const rows = baselinesOf(twins, items, circumstances.remembered);
  if (rows.length > 0) await putBaselines(rows);
  return replaceTwins(twins);
}

/** What is to be remembered from now on of how twins stand. */
function baselinesOf(
  twins: readonly Twin[],
  items: readonly Item[],
  remembered: Remembered
): Baseline[] {
  const byId = new Map(items.map((item) => [item.id, item]));
  const now = new Date().toISOString();
  return twins.flatMap(({ video, post, standing }) => {
    const [shown, told] = [byId.get(video?.id ?? ''), byId.get(post?.id ?? '')];
    const isInStep = standing === 'in-step' || standing === 'in-hand';
    return (shown && told && nextBaseline(shown, told, remembered, isInStep, now)) || [];
  });
}
