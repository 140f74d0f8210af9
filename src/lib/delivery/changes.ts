import { isVideo, type ChangePayload } from '$lib/core/delivery/payload.ts';
import type { Transfer } from '$lib/core/delivery/transfer.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { Item } from '$lib/core/model/item.ts';
import { PlaceError, type Place } from '$lib/core/model/place.ts';
import { getItem, itemByOrigin } from '$lib/data/items.ts';
import { getEntry, requestPublish, type PublishRequest } from '$lib/data/outbox.ts';
import { getPlace } from '$lib/data/places.ts';
import { requestEmbed, transfersToEmbed } from '$lib/data/transfers.ts';
import { deliverEntry } from './deliverEntry.ts';

/** A change to a post, under a key that depends only on the post and on what is changed. */
const requestOf = (
  post: Item,
  blog: Place,
  what: string,
  change: ChangePayload['change']
): PublishRequest => ({
  key: placementKey(post.url, what, blog.url),
  itemId: post.id,
  placeId: blog.id,
  url: post.url,
  payload: { kind: 'change', title: post.title, change }
});

/**
 * Gives the post of a drifted twin the title of its video, when the blog lets us.
 * @throws PlaceError when it could not be done; the outbox goes on trying what may pass
 */
export async function retitlePost(video: Item, post: Item): Promise<void> {
  const blog = await getPlace(post.placeId);
  if (!blog?.rights.includes('update'))
    throw new PlaceError({ kind: blog?.hasKey ? 'right-missing' : 'key-missing', url: post.url });
  const change = { what: 'retitle' as const, from: post.title, to: video.title };
  const request = requestOf(post, blog, 'retitle', change);
  await requestPublish(request, Date.now());
  await deliverEntry(request.key);
  const entry = await getEntry(request.key);
  if (entry?.problem) throw new PlaceError(entry.problem);
}

/**
 * Shows videos in the posts they were made from, once everybody may watch them: at once where they
 * are public, else when a reading of their channel finds that they were opened.
 */
export async function embedOpenedVideos(): Promise<void> {
  for (const transfer of await transfersToEmbed()) {
    const key = await embedWhenOpen(transfer);
    if (key) await deliverEntry(key);
  }
}

/** @returns the key of the request, or null where nothing is to be done yet */
async function embedWhenOpen(transfer: Transfer): Promise<string | null> {
  const entry = await getEntry(transfer.key);
  if (!entry || !isVideo(entry.payload) || entry.wanted === 'removed') return null;
  const video = await itemByOrigin(transfer.placeId, transfer.key);
  if (!video?.embedUrl || !['public', 'unlisted'].includes(video.visibility)) return null;
  const post = await getItem(transfer.itemId);
  const blog = post && (await getPlace(post.placeId));
  // Where the key has no right to change posts, nothing can be done about it.
  const mayChange = post && blog?.micropub && blog.rights.includes('update');
  // Loaded when there is one to make: what starts the application need not know HTML.
  const { playerHtml } = await import('$lib/core/article/template/player.ts');
  const html = playerHtml(video.embedUrl, transfer.title);
  const change = { what: 'embed' as const, embedUrl: video.embedUrl, html };
  const request = mayChange ? requestOf(post, blog, `embed/${transfer.key}`, change) : null;
  await requestEmbed(transfer.key, request, Date.now());
  return request?.key ?? null;
}
