import type { LaneLook, LaneTarget } from '$lib/core/lanes/lane.ts';
import type { Made } from '$lib/core/lanes/runner.ts';
import type { Item } from '$lib/core/model/item.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { filmsOf, madeFromFilm, type Film } from '$lib/core/narration/films.ts';
import type { Narration } from '$lib/core/narration/narration.ts';
import { getBody } from '$lib/data/items.ts';
import { readRender } from '$lib/data/narrations.ts';
import { getPlace } from '$lib/data/places.ts';
import { readTransfer } from '$lib/data/transfers.ts';
import { makeVideoPayload, transferOf, weighedVideo } from '$lib/make/video.ts';
import { beginNarration, narratePost } from '../beginNarration.ts';
import { useFilm } from '../films.ts';
import { contentOf, renderVideo } from '../narrate.ts';
import { keepThumbnail } from '../publishVideo.ts';

/** The one video file of a post that lies at its blog: which of several is meant, a person says in the booth. */
function filmForLane(films: readonly Film[]): Film | null {
  const own = films.filter((f) => f.isAtBlog);
  return own.length === 1 ? own[0]! : null;
}

/**
 * The narrated video that a lane makes of a post, as the booth would without being touched, with
 * the file that is to follow it.
 * @throws PlaceError
 */
export async function makeNarratedForLane(
  post: Item,
  target: LaneTarget,
  look: LaneLook | null,
  signal: AbortSignal
): Promise<Made> {
  const [channel, blog, html] = await Promise.all([
    getPlace(target.placeId),
    getPlace(post.placeId),
    getBody(post.id)
  ]);
  if (!channel)
    throw new PlaceError({ kind: 'not-found', detail: 'The channel is not connected any more.' });
  const begun = await beginNarration(post, html, [channel], look);
  const { scenes } = await narratePost(post, html, blog, begun.options);
  const narration: Narration = { ...begun, scenes, madeFrom: `${post.title}\n${html}` };
  const kept = await readRender(post.id);
  const film = filmForLane(filmsOf(post, blog));
  const wanted = film ? madeFromFilm(film.url) : contentOf(narration);
  const isMade = kept?.state === 'done' && kept.madeFrom === wanted;
  const render = isMade
    ? kept
    : film
      ? (await useFilm(film, post, signal)).render
      : await renderVideo(narration, post, signal);
  if (render?.state !== 'done' || !narration.details)
    throw new PlaceError({
      kind: render?.state === 'failed' ? 'refused' : 'stopped',
      detail: render?.problem ? `The video could not be made: ${render.problem.kind}.` : ''
    });
  const { tags, categories, status } = target;
  const input = {
    post,
    blog,
    channel,
    render,
    now: new Date(),
    details: {
      ...narration.details,
      placeIds: [channel.id],
      // A channel has no drafts; what nobody but its owner sees is private.
      visibility: status === 'public' ? ('public' as const) : ('private' as const),
      ...(tags.length > 0 && { tags }),
      ...(categories[0] && { category: categories[0] })
    }
  };
  const { key, payload, findings } = makeVideoPayload(input);
  const thumbnail = await keepThumbnail(narration, render);
  return {
    key,
    payload,
    findings: weighedVideo(findings),
    transfer: transferOf(key, input, thumbnail, await readTransfer(key))
  };
}
