import { isVideo, type VideoPayload } from '$lib/core/delivery/payload.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { tieId } from '$lib/core/model/tie.ts';
import type { Twin } from '$lib/core/model/twin.ts';
import { mergeLines } from '$lib/core/twins/merge/mergeLines.ts';
import { mergePosts, takeChoices, type PostVersion } from '$lib/core/twins/merge/mergePosts.ts';
import { getBaseline } from '$lib/data/baselines.ts';
import { getItem } from '$lib/data/items.ts';
import { readNarration, readRender } from '$lib/data/narrations.ts';
import { getEntry, requestUpdate } from '$lib/data/outbox.ts';
import { getPlace } from '$lib/data/places.ts';
import { undoLast } from '$lib/delivery/deliverEntry.ts';
import { makeVideoPayload } from '$lib/make/video.ts';
import { channelFor } from '$lib/places/adapter.ts';
import { acceptChanges } from './drift.ts';
import { sendNow, type NoUpdate, type TwinUpdate, type Updated } from './twinUpdate.ts';

/**
 * The same as `planUpdate`, for title, description and tags of a video that was made from its post. What
 * it shows and says stays: for that, a new one has to be made.
 * @throws PlaceError
 */
export async function planVideoUpdate(twin: Twin): Promise<TwinUpdate | NoUpdate> {
  const [video, post] = await Promise.all([
    getItem(twin.video?.id ?? ''),
    getItem(twin.post?.id ?? '')
  ]);
  if (!video || !post) return 'gone';
  const entry = video.origin ? await getEntry(video.origin) : undefined;
  if (!entry?.sent || !isVideo(entry.sent) || entry.itemId !== post.id) return 'not-made-here';
  if (entry.state !== 'published') return 'being-sent';
  const { sent } = entry;
  const place = await getPlace(video.placeId);
  const channel = await channelFor(place);
  if (!place || !channel || !place.rights.includes('update'))
    throw new PlaceError({ kind: place?.hasKey ? 'right-missing' : 'key-missing', url: video.url });
  const there = await channel.readSaid(video.url);
  if (!there) return 'gone';
  const [blog, narration, render, row] = await Promise.all([
    getPlace(post.placeId),
    readNarration(post.id),
    readRender(post.id),
    getBaseline(tieId(video.id, post.id))
  ]);
  const details = narration?.details;
  const made =
    details && makeVideoPayload({ post, blog, channel: place, details, render, now: new Date() });
  // A title of its own is a choice; one that was the post's follows it.
  const isPostTitle = row?.ofPost.facts.title === sent.title;
  const base = versionOf(sent);
  const fresh = {
    ...base,
    title: isPostTitle ? post.title : sent.title,
    html: made?.description ?? sent.description
  };
  const mine = { ...base, title: there.title, html: there.description, tags: there.tags };
  const merge = mergePosts(base, mine, fresh, mergeLines);
  const { visibility } = there;
  const isDated = visibility === 'private' && Date.parse(sent.publishAt ?? '') > Date.now();
  const stands = {
    ...withVersion(sent, mine),
    visibility,
    publishAt: isDated ? sent.publishAt : null
  };
  return {
    side: 'video',
    merge,
    apply: (choices) => updateVideo(twin, entry.key, stands, takeChoices(merge, choices))
  };
}

async function updateVideo(
  twin: Twin,
  key: string,
  stands: VideoPayload,
  version: PostVersion
): Promise<Updated> {
  const there = { payload: stands, fingerprint: '' };
  await requestUpdate(key, withVersion(stands, version), there, Date.now());
  const isSent = await sendNow(key);
  const undoAccept = await acceptChanges([twin]);
  const undo = async () => {
    await undoLast(key);
    await undoAccept();
  };
  return { isSent, undo };
}

const versionOf = ({ title, description, tags }: VideoPayload): PostVersion => ({
  title,
  excerpt: '',
  tags,
  picture: '',
  html: description
});

const withVersion = (payload: VideoPayload, { title, html, tags }: PostVersion): VideoPayload => ({
  ...payload,
  title,
  description: html,
  tags
});
