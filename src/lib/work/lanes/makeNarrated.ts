import type { Made } from '$lib/core/lanes/drive.ts';
import type { LaneTarget } from '$lib/core/lanes/lane.ts';
import type { Item } from '$lib/core/model/item.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import type { Narration } from '$lib/core/narration/narration.ts';
import { db } from '$lib/data/db.ts';
import { getBody } from '$lib/data/items.ts';
import { beginNarration, narratePost } from '../beginNarration.ts';
import { contentOf, makeVideo } from '../narrate.ts';
import { readyVideo, videoPlacement } from '../placeVideo.ts';

/**
 * The narrated video that a lane makes of a post, as the booth would without being touched. Its file
 * is kept, and sent once the video stands at its channel.
 * @param isRehearsal nothing is readied to be sent
 * @throws PlaceError
 */
export async function makeNarrated(
  post: Item,
  target: LaneTarget,
  signal: AbortSignal,
  isRehearsal: boolean
): Promise<Made> {
  const channel = await db.places.get(target.placeId);
  if (!channel)
    throw new PlaceError({ kind: 'not-found', detail: 'The channel is not linked any more.' });
  const html = await getBody(post.id);
  const blog = (await db.places.get(post.placeId)) ?? null;
  const begun = await beginNarration(post, html, [channel]);
  const { scenes } = await narratePost(post, html, blog, begun.options);
  const narration: Narration = { ...begun, scenes, madeFrom: `${post.title}\n${html}` };
  const kept = await db.renders.get(post.id);
  const isMade = kept?.state === 'done' && kept.madeFrom === contentOf(narration);
  const render = isMade ? kept : await makeVideo(narration, post, signal);
  if (render?.state !== 'done' || !narration.details)
    throw new PlaceError({
      kind: render?.state === 'failed' ? 'refused' : 'stopped',
      detail: render?.problem ? `The video could not be made: ${render.problem.kind}.` : ''
    });
  const { tags, categories, status } = target;
  const details = {
    ...narration.details,
    // A channel has no drafts; what nobody but its owner sees is private.
    visibility: status === 'public' ? ('public' as const) : ('private' as const),
    ...(tags.length > 0 && { tags }),
    ...(categories[0] && { category: categories[0] })
  };
  const { key, payload } = isRehearsal
    ? await videoPlacement(render, post, channel, details)
    : await readyVideo(narration, render, post, channel, details);
  return { key, payload, complaints: 0 };
}
