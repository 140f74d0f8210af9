import { DROP_NOISE } from '$lib/core/captions/tidyOptions.ts';
import type { Held } from '$lib/core/delivery/outbox.ts';
import { isPost, type PostPayload } from '$lib/core/delivery/payload.ts';
import type { Item } from '$lib/core/model/item.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { takeChoices, type PostMerge, type PostVersion } from '$lib/core/twins/merge/mergePosts.ts';
import { getMakingText, keepMaking } from '$lib/data/baselines.ts';
import { readDesk } from '$lib/data/desk.ts';
import { getItem } from '$lib/data/items.ts';
import { getEntry, requestUpdate } from '$lib/data/outbox.ts';
import { getPlace } from '$lib/data/places.ts';
import type { Work } from '$lib/core/model/rows.ts';
import { undoLast } from '$lib/delivery/deliverEntry.ts';
import { versionOf } from '$lib/make/making.ts';
import type { TalkWorker } from '$lib/make/post.ts';
import { blogFor } from '$lib/places/adapter.ts';
import { composeWorker } from '$lib/workers/compose.ts';
import { layOutPost, type LaidOutPost } from './layOutPost.ts';
import { sendNow, type NoUpdate, type TwinUpdate, type Updated } from './twinUpdate.ts';

/**
 * Reads what a post was made as, how it stands at its blog, and how it would be made now, and merges
 * the three. Nothing is sent.
 * @throws PlaceError
 */
export async function planUpdate(
  videoId: string,
  postId: string,
  worker: TalkWorker,
  signal: AbortSignal
): Promise<TwinUpdate | NoUpdate> {
  const [video, post, { draft, work }] = await Promise.all([
    getItem(videoId),
    getItem(postId),
    readDesk(videoId)
  ]);
  const entry = post?.origin ? await getEntry(post.origin) : undefined;
  if (!video || !post) return 'gone';
  if (!entry?.sent || !isPost(entry.sent) || entry.itemId !== video.id) return 'not-made-here';
  if (draft) return 'on-the-desk';
  if (entry.state !== 'published' && !entry.theirs) return 'being-sent';
  const { sent } = entry;
  const held = await readHeld(post);
  if (!held) return 'gone';
  signal.throwIfAborted();
  const blog = await getPlace(entry.placeId);
  if (!blog) return 'not-made-here';
  const kept = sent.making ? await getMakingText(sent.making) : undefined;
  const template = kept?.template ?? null;
  const fresh = await layOutPost(video, blog, worker, signal, { template, work: work ?? null });
  const base: PostVersion = kept ?? {
    ...sent,
    tags: [...sent.categories, ...sent.tags],
    picture: sent.picture?.url ?? ''
  };
  const there = { payload: asPayload(sent, held), fingerprint: held.fingerprint };
  const merge: PostMerge = await composeWorker().mergePosts(base, held, versionOf(fresh.made));
  return {
    side: 'post',
    merge,
    apply: (choices) =>
      updatePost(entry.key, there, fresh, takeChoices(merge, choices), work ?? newWork(video.id))
  };
}

async function readHeld(post: Item): Promise<Held | null> {
  const place = await getPlace(post.placeId);
  const blog = await blogFor(place);
  if (!place || !blog || !place.rights.includes('update'))
    throw new PlaceError({ kind: place?.hasKey ? 'right-missing' : 'key-missing', url: post.url });
  return blog.look(post.url);
}

/** What was sent, as it stands at the blog: with what was changed there by hand. */
function asPayload(sent: PostPayload, held: Held): PostPayload {
  const isDated = sent.status === 'dated' && held.status === 'public';
  return { ...withVersion(sent, held), status: isDated ? 'dated' : held.status };
}

function withVersion(sent: PostPayload, { title, html, excerpt, tags, picture }: PostVersion) {
  const categories = sent.categories.filter((name) => tags.includes(name));
  const isSame = picture === sent.picture?.url;
  return {
    ...sent,
    title,
    html,
    excerpt,
    categories,
    tags: tags.filter((tag) => !categories.includes(tag)),
    picture: isSame ? sent.picture : picture ? { url: picture, alt: sent.picture?.alt ?? '' } : null
  };
}

async function updatePost(
  key: string,
  there: { payload: PostPayload; fingerprint: string },
  fresh: LaidOutPost,
  post: PostVersion,
  work: Work
): Promise<Updated> {
  const { making, text } = fresh.making;
  await keepMaking(making, text);
  const payload = { ...withVersion(there.payload, post), making: making.id };
  const { marked, html } = fresh.made;
  const edited =
    post.html === html
      ? null
      : { base: marked, html: await composeWorker().withSeconds(post.html, marked) };
  await requestUpdate(key, payload, there, Date.now(), { ...work, edited });
  return { isSent: await sendNow(key), undo: () => undoLast(key) };
}

const newWork = (id: string): Work => ({
  id,
  chapters: null,
  tidy: { ...DROP_NOISE },
  pictures: [],
  phrases: [],
  choices: [],
  edited: null
});
