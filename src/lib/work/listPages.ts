import { amiss, type ListPage } from '$lib/core/listPages/listPage.ts';
import type { Listable } from '$lib/core/listPages/entries.ts';
import type { Held } from '$lib/core/delivery/outbox.ts';
import { isPost, type PostPayload } from '$lib/core/delivery/payload.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { Place } from '$lib/core/model/place.ts';
import {
  takeChoices,
  withoutConflicts,
  type PostVersion
} from '$lib/core/twins/merge/mergePosts.ts';
import { itemsByIds, itemsOf } from '$lib/data/items.ts';
import { patchListPage, removeListPage, takeStalePages } from '$lib/data/listPages.ts';
import { getEntry, requestPublish, requestUpdate } from '$lib/data/outbox.ts';
import { allPlaces, getPlace } from '$lib/data/places.ts';
import { getPlaylists, playlistsOf } from '$lib/data/playlists.ts';
import { newestTwins } from '$lib/data/twins.ts';
import { deliverEntry, undoEntry } from '$lib/delivery/deliverEntry.ts';
import { blogFor } from '$lib/places/adapter.ts';
import { composeWorker } from '$lib/workers/compose.ts';
import { readPlaylist } from './playlists.ts';
import { attempt } from './tasks.svelte.ts';

export interface MadePage {
  payload: PostPayload;
  /** How many items it lists. */
  items: number;
}

/** Makes a page from what is known now. Nothing is sent. */
export async function makeListPage(page: ListPage, blog: Place): Promise<MadePage> {
  const connected = await allPlaces();
  const places = connected.map((place) => place.id);
  if (page.only.by === 'playlist') await readPlaylistAgain(page.only.name, connected);
  const [listable, playlists] = await Promise.all([
    page.lists === 'videos' ? videosWithPosts() : postsOf(places),
    playlistsOf(places)
  ]);
  const { title, url } = blog;
  return composeWorker().listPage(page, listable, playlists, { title, url });
}

/** Reads a playlist that its channel was read after; what cannot be read now stays as it was read before. */
async function readPlaylistAgain(url: string, places: readonly Place[]): Promise<void> {
  const [playlist] = await getPlaylists([url]);
  const channel = places.find((place) => place.id === playlist?.placeId);
  if (!playlist || !channel || playlist.read > channel.checked) return;
  await attempt(() => readPlaylist(playlist, new AbortController().signal));
}

/** One of each video, whichever channels have it, with its post. */
async function videosWithPosts(): Promise<Listable[]> {
  const twins = await newestTwins();
  const items = await itemsByIds(
    twins.flatMap(({ video, post }) => [video?.id ?? '', post?.id ?? ''])
  );
  return twins.flatMap(({ video, post }) => {
    const item = items.get(video?.id ?? '');
    return item ? [{ item, post: items.get(post?.id ?? '') ?? null }] : [];
  });
}

const postsOf = async (places: readonly string[]): Promise<Listable[]> =>
  (await itemsOf(places)).map((item) => ({ item, post: null }));

/** The key of a page's post: the same for as long as there is the page. */
const keyOf = ({ id }: ListPage, blog: Place): string => placementKey(id, 'list', blog.url);

/**
 * Publishes a page, or what became of it since, whatever was amiss before. What was written by hand at the
 * blog stays, unless all of it is to be replaced.
 * @returns how many places stay as they were written there, though they would be made otherwise now
 */
export async function publishListPage(given: ListPage, isReplaced = false): Promise<number> {
  const blog = await getPlace(given.placeId);
  if (!blog) return 0;
  const page = { ...given, key: given.key || keyOf(given, blog) };
  const made = await makeListPage(page, blog);
  const standing = isReplaced ? null : await standingOf(page, blog);
  const merged = standing && (await mergeText(page, standing, made.payload.html));
  // Before it is sent: a reading that finds it at the blog is to know that it is no post like others.
  await patchListPage(page.id, { key: page.key, problem: '', ...keptOf(made) });
  if (standing && merged)
    await requestMerged(page.key, asEdited(made.payload, merged.html, standing), standing);
  else {
    const { key, id: itemId } = page;
    await requestPublish({ key, itemId, placeId: blog.id, payload: made.payload }, Date.now());
  }
  await deliverEntry(page.key);
  return merged?.conflicts ?? 0;
}

/** What is wanted, with the title and the visibility that it was given at the blog where nobody changed them here. */
function asEdited(payload: PostPayload, html: string, { held, sent }: Standing): PostPayload {
  const title = payload.title === sent.title ? held.title : payload.title;
  const status = payload.status === sent.status ? held.status : payload.status;
  return { ...payload, html, title, status };
}

const keptOf = ({ payload, items }: MadePage) => ({ sentItems: items, made: payload.html });

/** A page as it stands at its blog, and as it was sent there; null where it does not. */
async function standingOf(
  { key }: ListPage,
  blog: Place
): Promise<{ held: Held; sent: PostPayload } | null> {
  const entry = await getEntry(key);
  if (entry?.state !== 'published' || !entry.sent || !isPost(entry.sent)) return null;
  const held = await (await blogFor(blog))?.look(entry.url);
  return held ? { held, sent: entry.sent } : null;
}
type Standing = NonNullable<Awaited<ReturnType<typeof standingOf>>>;

/** The text as it stands at the blog, with what is made otherwise now; what both changed stays as it is there. */
async function mergeText(
  page: ListPage,
  { held }: Standing,
  fresh: string
): Promise<{ html: string; conflicts: number }> {
  const { title, excerpt, tags, picture } = held;
  const version = (html: string): PostVersion => ({ title, excerpt, tags, picture, html });
  const { html } = held;
  const merge = await composeWorker().mergePosts(version(page.made), version(html), version(fresh));
  return {
    html: takeChoices(merge, withoutConflicts(merge)).html,
    conflicts: merge.changes.filter((change) => change.isConflict).length
  };
}

function requestMerged(key: string, payload: PostPayload, { held, sent }: Standing): Promise<void> {
  const { title, html, excerpt, status, fingerprint } = held;
  const there = { payload: { ...sent, title, html, excerpt, status }, fingerprint };
  return requestUpdate(key, payload, there, Date.now());
}

/** Deletes a page here and at its blog. */
export async function deleteListPage(page: ListPage): Promise<void> {
  if (page.key) await undoEntry(page.key);
  const entry = page.key ? await getEntry(page.key) : undefined;
  // While it stands there, it is known here as what it is.
  if (!entry || entry.state === 'removed') await removeListPage(page.id);
}

/**
 * Has pages that follow what is read become what they are to be by now. What was written by hand at the blog
 * stays; where both changed the same, or something seems amiss, the page waits for the user.
 */
export async function keepListPages(): Promise<void> {
  await navigator.locks.request('list-pages', { ifAvailable: true }, async (lock) => {
    if (!lock) return;
    for (const page of await takeStalePages()) {
      // What cannot be reached now is looked at again after the next reading.
      const { value: problem } = await attempt(() => follow(page));
      if (problem) await patchListPage(page.id, { problem });
    }
  });
}

/** @returns what is amiss, or nothing */
async function follow(page: ListPage): Promise<ListPage['problem']> {
  const blog = await getPlace(page.placeId);
  const entry = await getEntry(page.key);
  if (!blog?.rights.includes('update') || entry?.state !== 'published') return '';
  const made = await makeListPage(page, blog);
  if (made.payload.html === page.made) return '';
  const problem = amiss(page, made.items);
  if (problem) return problem;
  const standing = await standingOf(page, blog);
  if (!standing) return 'gone-there';
  const { html, conflicts } = await mergeText(page, standing, made.payload.html);
  if (conflicts > 0) return 'edited-there';
  await patchListPage(page.id, keptOf(made));
  // What the user changes of a page beside what it lists goes out when the user says so.
  const { title, excerpt, status } = standing.held;
  await requestMerged(page.key, { ...standing.sent, title, excerpt, status, html }, standing);
  await deliverEntry(page.key);
  return '';
}
