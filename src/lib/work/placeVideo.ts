import { chaptersVtt } from '$lib/core/chapters/formats.ts';
import type { OutboxEntry, VideoPayload } from '$lib/core/lanes/outbox.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place } from '$lib/core/model/place.ts';
import {
  fillDescription,
  postFields,
  type PostFields,
  type VideoDetails
} from '$lib/core/narration/details.ts';
import type { Narration, Render } from '$lib/core/narration/narration.ts';
import { db } from '$lib/data/db.ts';
import { wantPlaced } from '$lib/data/outbox.ts';
import { readTransfer, saveTransfer } from '$lib/data/transfers.ts';
import { coreWorker } from '$lib/workers/core.ts';
import { videoWorker } from '$lib/workers/video.ts';
import { productionOf } from './narrate.ts';
import { workOn } from './post.ts';

/** The key of a post's video at a channel, the same on every machine. */
export const videoKey = (post: Item, channel: Place): string =>
  placementKey(post.url || post.nativeId, 'video', channel.feedUrl);

/** What the description is filled with for one channel. */
export const fieldsFor = (
  post: Item,
  blog: Place | null,
  channel: Place | null,
  chapters: Render['chapters']
): PostFields =>
  postFields({
    ...{ post, chapters },
    blog: { title: blog?.title ?? '', url: blog?.url ?? '' },
    channel: { title: channel?.title ?? '', url: channel?.url ?? '' },
    now: new Date().toISOString()
  });

/**
 * Writes a finished video into the outbox for each of its channels, then sends what is said of it
 * and its file. The same post and channel come to the same key, so trying again replaces.
 */
export async function placeVideo(
  narration: Narration,
  render: Render,
  post: Item,
  details: VideoDetails
): Promise<void> {
  for (const id of details.placeIds) {
    const channel = await db.places.get(id);
    if (!channel) continue;
    const { key, payload } = await readyVideo(narration, render, post, channel, details);
    await wantPlaced({ key, itemId: post.id, placeId: id, payload }, Date.now());
    await coreWorker().pairAgain();
    void workOn(key);
  }
}

/** What a channel is asked to take of a finished video, and under which key. */
export async function videoPlacement(
  render: Render,
  post: Item,
  channel: Place,
  details: VideoDetails
): Promise<{ key: string; payload: VideoPayload }> {
  const blog = (await db.places.get(post.placeId)) ?? null;
  return {
    key: videoKey(post, channel),
    payload: toPayload(details, render, post, blog, channel)
  };
}

/** The same, with its file readied for the channel: it is sent once the video stands there. */
export async function readyVideo(
  narration: Narration,
  render: Render,
  post: Item,
  channel: Place,
  details: VideoDetails
): Promise<{ key: string; payload: VideoPayload }> {
  const placement = await videoPlacement(render, post, channel, details);
  const { key } = placement;
  const before = await readTransfer(key);
  const isSent = before?.file === render.file && before.state === 'ready';
  if (!isSent)
    await saveTransfer({
      ...{ key, placeId: channel.id, itemId: post.id, title: details.title },
      ...{ file: render.file, bytes: render.bytes, embeds: details.embeds },
      thumbnail: await keepThumbnail(narration),
      type: render.format === 'mp4' ? 'video/mp4' : 'video/webm',
      // The same file goes on where it was.
      uploadUrl: before?.file === render.file ? before.uploadUrl : '',
      ...{ sent: 0, state: 'waiting', problem: null, attempts: 0 },
      ...{ nextTry: Date.now(), updated: Date.now() }
    });
  return placement;
}

function toPayload(
  details: VideoDetails,
  render: Render,
  post: Item,
  blog: Place | null,
  channel: Place
): VideoPayload {
  const { title, tags, category, language, visibility, on } = details;
  const isDated = visibility === 'dated';
  return {
    ...{ kind: 'video', title, tags: [...tags], category, language },
    description: fillDescription(
      details.description,
      fieldsFor(post, blog, channel, render.chapters)
    ).text,
    visibility: isDated ? 'private' : visibility,
    publishAt: isDated && on ? new Date(on).toISOString() : null,
    madeFrom: post.url,
    captions: render.captions,
    chapters: render.chapters.length > 0 ? chaptersVtt(render.chapters, render.seconds) : ''
  };
}

/** The title card, kept until it is sent. */
async function keepThumbnail(narration: Narration): Promise<string> {
  const at = Math.max(
    0,
    narration.scenes.findIndex((s) => s.kind === 'title')
  );
  const blob = await videoWorker().card(productionOf(narration, new Map()), at);
  const id = `${narration.id}:thumbnail`;
  await db.media.put({ id, name: 'thumbnail.png', blob, seconds: null, channels: null });
  return id;
}

/** Whether the outbox is done with an entry. */
export const isUnderWay = (entry: OutboxEntry | undefined): boolean =>
  entry?.state === 'waiting' || entry?.state === 'sending';
