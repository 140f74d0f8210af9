import { proxy } from 'comlink';
import { z } from 'zod';
import { citedOf } from '$lib/core/comments/cite.ts';
import { hasLinks, type Comment } from '$lib/core/comments/comment.ts';
import type { ChangePayload } from '$lib/core/delivery/payload.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place } from '$lib/core/model/place.ts';
import type { Twin } from '$lib/core/model/twin.ts';
import {
  chooseComments,
  commentsOf,
  restoreChoices,
  saveComments,
  videosWithShown
} from '$lib/data/comments.ts';
import { getItem, itemsOf } from '$lib/data/items.ts';
import { getEntry, requestPublish, requestRemove } from '$lib/data/outbox.ts';
import { allPlaces, getPlace } from '$lib/data/places.ts';
import { readSetting, saveSetting } from '$lib/data/settings.ts';
import { getTwins } from '$lib/data/twins.ts';
import { deliverEntry } from '$lib/delivery/deliverEntry.ts';
import { coreWorker } from '$lib/workers/core.ts';
import { pageFetcher } from './pageFetcher.ts';
import type { Report } from './tasks.svelte.ts';

/** How many comments a channel counted under each video when they were read. */
const countsSchema = z.record(z.string(), z.number()).default({});

/**
 * Reads what was written under the videos of a channel that have a post, where its number is another than is
 * known, and brings posts up to date with it.
 * @param isAsked all of them, whatever their number
 * @returns how many videos' comments could not be read; they are read again next time
 */
export async function readCommentsOf(
  channel: Place,
  signal: AbortSignal,
  report: Report,
  isAsked = false
): Promise<number> {
  const rule = channel.comments ?? 'off';
  if (rule === 'off') return 0;
  const known = await readSetting('commentCounts', countsSchema);
  const videos = (await itemsOf([channel.id])).filter(
    ({ id, replies }) =>
      replies && (isAsked || replies.count === null || replies.count !== (known[id] ?? 0))
  );
  const twins = new Map((await getTwins(videos.map((v) => v.id))).map((t) => [t.id, t]));
  const toRead = videos.filter((video) => twins.get(video.id)?.post);
  const now = new Date().toISOString();
  const choose = (comment: Comment) =>
    rule === 'always' && !hasLinks(comment) ? ('bring' as const) : ('open' as const);
  let failed = 0;
  for (const [i, video] of toRead.entries()) {
    report(`Comments: ${i + 1} of ${toRead.length}`, i / toRead.length);
    const read = await coreWorker().readComments(
      video.replies?.url ?? '',
      video.id,
      proxy(pageFetcher(signal))
    );
    signal.throwIfAborted();
    // One feed that cannot be read keeps nothing from the others.
    if (read.problem) {
      failed++;
      continue;
    }
    const isWhole = read.isWhole || read.comments.length >= (video.replies?.count ?? Infinity);
    await saveComments(video.id, read.comments, isWhole, choose, now);
    known[video.id] = video.replies?.count ?? read.comments.length;
  }
  await saveSetting('commentCounts', known);
  // A post that came since shows what was chosen before, too.
  await citeInPosts([...(await videosWithShown()), ...toRead.map((video) => video.id)]);
  return failed;
}

/**
 * Reads the comments of every channel that has them brought over, now.
 * @returns how many videos' comments could not be read
 */
export async function readAllComments(signal: AbortSignal, report: Report): Promise<number> {
  let failed = 0;
  for (const place of await allPlaces())
    if (place.kind === 'channel') failed += await readCommentsOf(place, signal, report, true);
  return failed;
}

/** A decision that is written down, while posts follow. */
export interface Decided {
  /** Ends when the posts follow, or the outbox goes on trying. */
  cited: Promise<void>;
  undo: () => Promise<Decided>;
}

/** Decides whether posts show comments, and has the posts follow. */
export async function decideComments(
  comments: readonly Comment[],
  choice: Comment['choice']
): Promise<Decided> {
  const ids = comments.map((c) => c.id);
  const before = await chooseComments(ids, choice, new Date().toISOString());
  return decided(comments, async () => {
    await restoreChoices(before, new Date().toISOString());
    return decided(comments, () => decideComments(comments, choice));
  });
}

function decided(comments: readonly Comment[], undo: () => Promise<Decided>): Decided {
  return { cited: citeInPosts(comments.map((c) => c.videoId)), undo };
}

/** Has the posts of videos show the comments that were chosen, where they do not yet. */
async function citeInPosts(videoIds: readonly string[]): Promise<void> {
  for (const twin of await getTwins(videoIds)) {
    // What was chosen last is what is wanted last.
    const key = await navigator.locks.request(`comments/${twin.id}`, () => requestComments(twin));
    if (key) await deliverEntry(key);
  }
}

/** @returns the key of the request, or null where the post shows them already or cannot be changed */
async function requestComments({ video, post: half }: Twin): Promise<string | null> {
  const post = half && (await getItem(half.id));
  const blog = post && (await getPlace(post.placeId));
  const item = video && (await getItem(video.id));
  if (!post || !item || !blog?.micropub || !blog.rights.includes('update')) return null;
  const key = placementKey(post.url, 'comments', blog.url);
  const change = await changeFor(item);
  const entry = await getEntry(key);
  const standing = entry?.wanted === 'published' ? entry : null;
  if (change.comments.length === 0) {
    if (!standing) return null;
    // What is taken out is named by what was last wanted.
    return (await requestRemove(key, Date.now())) ? key : null;
  }
  const payload: ChangePayload = { kind: 'change', title: post.title, change };
  if (standing && JSON.stringify(standing.payload) === JSON.stringify(payload)) return null;
  const request = { key, itemId: post.id, placeId: blog.id, url: post.url, payload };
  await requestPublish(request, Date.now());
  return key;
}

async function changeFor(video: Item) {
  const channel = await getPlace(video.placeId);
  const cited = citedOf(await commentsOf(video.id));
  return { what: 'comments' as const, channel: channel?.title ?? '', ...cited };
}
