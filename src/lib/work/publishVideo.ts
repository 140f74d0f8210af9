import type { Item } from '$lib/core/model/item.ts';
import type { VideoDetails } from '$lib/core/narration/details.ts';
import type { Narration, Render } from '$lib/core/narration/narration.ts';
import { saveMedia } from '$lib/data/media.ts';
import { isFilm } from '$lib/core/narration/films.ts';
import { requestVideo } from '$lib/data/outbox.ts';
import { getPlace } from '$lib/data/places.ts';
import { readTransfer } from '$lib/data/transfers.ts';
import { deliverEntry } from '$lib/delivery/deliverEntry.ts';
import { makeVideoPayload, transferOf } from '$lib/make/video.ts';
import { readFile } from '$lib/video/files.ts';
import { framesOfFile } from '$lib/video/stills.ts';
import { videoWorker } from '$lib/workers/video.ts';
import { productionOf } from './narrate.ts';

/**
 * Writes a finished video into the outbox for each of its channels, then sends what is said of it
 * and its file. The same post and channel come to the same key, so trying again replaces.
 */
export async function publishVideo(
  narration: Narration,
  render: Render,
  post: Item,
  details: VideoDetails
): Promise<void> {
  const blog = await getPlace(post.placeId);
  const thumbnail = await keepThumbnail(narration, render);
  for (const id of details.placeIds) {
    const channel = await getPlace(id);
    if (!channel) continue;
    const input = { post, blog, channel, details, render, now: new Date() };
    const { key, payload } = makeVideoPayload(input);
    const transfer = transferOf(key, input, thumbnail, await readTransfer(key));
    await requestVideo({ key, itemId: post.id, placeId: id, payload }, transfer, Date.now());
    void deliverEntry(key);
  }
}

/**
 * The title card, or a frame of a film that is uploaded as it is, kept until it is sent.
 * @returns its name among the media
 */
export async function keepThumbnail(narration: Narration, render: Render): Promise<string> {
  const id = `${narration.id}:thumbnail`;
  const film = isFilm(render) ? await readFile(render.file) : null;
  const [frame] = film ? await framesOfFile(film, [THUMBNAIL_AT]) : [];
  const blob = frame?.blob ?? (await titleCard(narration));
  await saveMedia({ id, name: 'thumbnail', blob });
  return id;
}

/** How much of a film has run when its thumbnail is taken. */
const THUMBNAIL_AT = 0.2;

function titleCard(narration: Narration): Promise<Blob> {
  const at = Math.max(
    0,
    narration.scenes.findIndex((s) => s.kind === 'title')
  );
  return videoWorker().card(productionOf(narration, new Map()), at);
}
