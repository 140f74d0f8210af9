import { localZone } from '$lib/localZone.ts';
import { planSlots } from '$lib/core/lanes/pace.ts';
import { spreadPace, type Spread } from '$lib/core/lanes/laneOfItems.ts';
import { isPost, type ChangePayload, type PostPayload } from '$lib/core/delivery/payload.ts';
import type { OutboxEntry } from '$lib/core/delivery/outbox.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place } from '$lib/core/model/place.ts';
import type { Twin } from '$lib/core/model/twin.ts';
import { itemsByIds } from '$lib/data/items.ts';
import { decideAll, recordsInReview } from '$lib/data/lanes.ts';
import { getEntry, requestPublishAll, stopEntry, type PublishRequest } from '$lib/data/outbox.ts';
import { placesOfKind } from '$lib/data/places.ts';
import { deliverEntry, undoLast } from '$lib/delivery/deliverEntry.ts';
import type { Report } from './tasks.svelte.ts';

/** What is done with many posts at once. */
export type PostsAction =
  | { do: 'publish' }
  | { do: 'schedule'; spread: Spread }
  | { do: 'tag'; add: string[]; remove: string[] };

export interface PostsChanged {
  done: number;
  /** How many the outbox is still trying to send, and how many were refused or stopped. */
  waiting: number;
  failed: number;
  /** Those with nothing to change, or at a blog that takes no changes. */
  left: number;
  undo: () => Promise<void>;
}

/** Posts of twins that still have to be approved. */
export const inReview = (twins: readonly Twin[]): Twin[] =>
  twins.filter(({ reason }) => reason.kind === 'in-review');
/** Posts that are drafts at their blog. */
export const drafts = (twins: readonly Twin[]): Twin[] =>
  twins.filter(({ post }) => post?.visibility === 'draft');

/**
 * Approves what lanes made of some items; it goes out at their pace.
 * @returns how many were approved; what a blocking finding holds is not
 */
export async function approveMany(twins: readonly Twin[]): Promise<number> {
  const ids = new Set(twins.flatMap(({ video, post }) => [video?.id, post?.id]));
  const records = (await recordsInReview())
    .map(({ record }) => record)
    .filter((record) => ids.has(record.itemId));
  return decideAll(records, 'approve', Date.now());
}

/** When so many posts would go out. @returns milliseconds since 1970, earliest first */
export function datesOf(spread: Spread, count: number, now: number): number[] {
  const timeZone = localZone();
  const history = { placed: [], since: now, allowances: [] };
  return planSlots(spreadPace(spread, timeZone), history, now, count).map(({ at }) => at);
}

/**
 * Publishes, schedules or tags posts. All that is wanted is written down first: a page that closes in the middle
 * leaves the rest to the outbox.
 */
export async function changePosts(
  twins: readonly Twin[],
  action: PostsAction,
  signal: AbortSignal,
  report: Report
): Promise<PostsChanged> {
  const some = action.do === 'tag' ? twins.filter(({ post }) => post) : drafts(twins);
  const requests = await requestsFor(some, action);
  await requestPublishAll(requests, Date.now());
  const keys = requests.map(({ key }) => key);
  for (const [i, key] of keys.entries()) {
    if (signal.aborted) await stopEntry(key, Date.now());
    else {
      report(`${i + 1} of ${keys.length}`, i / keys.length);
      await deliverEntry(key);
    }
  }
  const states = (await Promise.all(keys.map(getEntry))).map((entry) => entry?.state);
  const countOf = (...some: string[]) => states.filter((s) => s && some.includes(s)).length;
  return {
    done: countOf('published'),
    waiting: countOf('waiting', 'sending', 'planned'),
    failed: countOf('failed'),
    left: some.length - requests.length,
    async undo() {
      for (const key of keys) await undoLast(key);
    }
  };
}

async function requestsFor(some: readonly Twin[], action: PostsAction): Promise<PublishRequest[]> {
  const posts = await itemsByIds(some.map(({ post }) => post?.id ?? ''));
  const blogs = new Map((await placesOfKind('blog')).map((blog) => [blog.id, blog]));
  const now = Date.now();
  const dates = action.do === 'schedule' ? datesOf(action.spread, some.length, now) : [];
  const requests: PublishRequest[] = [];
  for (const [i, { post: half }] of some.entries()) {
    const post = posts.get(half?.id ?? '');
    const blog = blogs.get(post?.placeId ?? '');
    if (!post || !blog?.rights.includes('update')) continue;
    const entry = post.origin ? await getEntry(post.origin) : undefined;
    const date = dates[i];
    // One that found no date is not published instead.
    if (action.do === 'schedule' && date === undefined) continue;
    const on = date === undefined ? null : new Date(date).toISOString();
    const request = requestFor(post, blog, entry, action, on);
    if (request) requests.push(request);
  }
  return requests;
}

/**
 * What was made here is wanted otherwise; a post that was not is changed in one thing.
 * @returns null where nothing would change
 */
function requestFor(
  post: Item,
  blog: Place,
  entry: OutboxEntry | undefined,
  action: PostsAction,
  on: string | null
): PublishRequest | null {
  const isMade = entry?.state === 'published' && entry.sent && isPost(entry.sent);
  if (isMade && isPost(entry.payload)) {
    const payload = changed(entry.payload, action, on);
    const { key, itemId, placeId } = entry;
    return payload && { key, itemId, placeId, payload };
  }
  const change = changeOf(post, action, on);
  if (!change) return null;
  return {
    key: placementKey(post.url, change.what === 'tags' ? 'tags' : 'status', blog.url),
    itemId: post.id,
    placeId: blog.id,
    url: post.url,
    payload: { kind: 'change', title: post.title, change }
  };
}

function changed(payload: PostPayload, action: PostsAction, on: string | null): PostPayload | null {
  switch (action.do) {
    case 'publish':
      return { ...payload, status: 'public' };
    case 'schedule':
      return { ...payload, status: 'dated', date: on };
    case 'tag': {
      const all = [...payload.categories, ...payload.tags];
      const { add, remove } = tagChange(all, action);
      if (add.length + remove.length === 0) return null;
      const keeps = (tag: string) => !remove.includes(tag);
      return {
        ...payload,
        categories: payload.categories.filter(keeps),
        tags: [...payload.tags.filter(keeps), ...add]
      };
    }
  }
}

function changeOf(
  post: Item,
  action: PostsAction,
  on: string | null
): ChangePayload['change'] | null {
  if (action.do !== 'tag') return { what: 'to-public', on };
  const { add, remove } = tagChange(post.tags, action);
  return add.length + remove.length === 0 ? null : { what: 'tags', add, remove };
}

/** Tags that are to come and are not there, and those that are to go and are, however they are written. */
function tagChange(
  there: readonly string[],
  { add, remove }: { add: readonly string[]; remove: readonly string[] }
): { add: string[]; remove: string[] } {
  const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();
  return {
    add: add.filter((tag) => !there.some((other) => same(tag, other))),
    remove: there.filter((tag) => remove.some((other) => same(tag, other)))
  };
}
