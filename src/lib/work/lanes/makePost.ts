import type { Lane, LaneTarget } from '$lib/core/lanes/lane.ts';
import { layoutFor } from '$lib/core/lanes/layoutFor.ts';
import type { Made } from '$lib/core/lanes/runner.ts';
import type { Item } from '$lib/core/model/item.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { keepMaking } from '$lib/data/baselines.ts';
import { getLayout } from '$lib/data/layouts.ts';
import { getPlace } from '$lib/data/places.ts';
import { toPayload, weighed } from '$lib/make/post.ts';
import { lanesTalkWorker } from '$lib/workers/talk.ts';
import { layOutPost } from '../layOutPost.ts';

/**
 * The post that a lane makes of a video, as the desk would lay it out without being touched.
 * @throws PlaceError
 */
export async function makePostForLane(
  lane: Lane,
  video: Item,
  target: LaneTarget,
  signal: AbortSignal
): Promise<Made> {
  const blog = await getPlace(target.placeId);
  if (!blog)
    throw new PlaceError({ kind: 'not-found', detail: 'The blog is not connected any more.' });
  const layout = layoutFor(lane.make, video);
  const template = (layout ? await getLayout(layout) : undefined)?.template ?? null;
  const { categories, tags } = target;
  const { key, post, making, findings } = await layOutPost(video, blog, lanesTalkWorker(), signal, {
    template,
    categories,
    tags
  });
  await keepMaking(making.making, making.text);
  return {
    key,
    payload: {
      ...toPayload(post, { status: target.status, on: '' }),
      making: making.making.id
    },
    findings: weighed(findings),
    transfer: null
  };
}
