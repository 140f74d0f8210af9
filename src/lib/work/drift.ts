import { isChangedThere, type OutboxEntry } from '$lib/core/delivery/outbox.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import type { Baseline } from '$lib/core/model/baseline.ts';
import type { Item } from '$lib/core/model/item.ts';
import { tieId } from '$lib/core/model/tie.ts';
import type { Twin } from '$lib/core/model/twin.ts';
import { ENGLISH_POST } from '$lib/core/lang/en/post.ts';
import { postWords } from '$lib/core/lang/post.ts';
import { baselineOf } from '$lib/core/twins/drift.ts';
import { withoutPlayer } from '$lib/core/twins/lostPlayer.ts';
import { detailsMark, readMark } from '$lib/core/twins/detailsMark.ts';
import {
  baselinesOfPost,
  getBaseline,
  putBaselines,
  restoreBaselines
} from '$lib/data/baselines.ts';
import { acceptTitles, restoreDecision } from '$lib/data/decisions.ts';
import { getDetails } from '$lib/data/details.ts';
import { getItem } from '$lib/data/items.ts';
import { note } from '$lib/data/journal.ts';
import { reopenTheirs, getEntry, requestPublish } from '$lib/data/outbox.ts';
import { getPlace } from '$lib/data/places.ts';
import { deliverEntry, settleTheirs, undoEntry } from '$lib/delivery/deliverEntry.ts';
import { blogFor } from '$lib/places/adapter.ts';

/**
 * Takes drifted twins as they stand for in step, for ever or until something changes again.
 * @returns what undoes it
 */
export async function acceptChanges(twins: readonly Twin[]): Promise<() => Promise<void>> {
  const before: Baseline[] = [];
  const rows: Baseline[] = [];
  const undoes: (() => Promise<unknown>)[] = [];
  const at = new Date().toISOString();
  for (const { video, post } of twins) {
    const [shown, told] = await Promise.all([getItem(video?.id ?? ''), getItem(post?.id ?? '')]);
    if (!told) continue;
    if (!shown) {
      const lost = await lostVideosOf(told.id);
      before.push(...lost);
      rows.push(...lost.map((row) => ({ ...row, isGoneAccepted: true })));
      await note({ what: 'accepted', itemId: told.id, title: told.title });
      continue;
    }
    const known = await getBaseline(tieId(shown.id, told.id));
    if (known) before.push(known);
    rows.push(await asItStands(shown, told, at));
    if (shown.title !== told.title) {
      const titles = { video: shown.title, post: told.title };
      const decided = await acceptTitles(shown.id, told.id, titles, at);
      undoes.push(() => restoreDecision(tieId(shown.id, told.id), decided));
    }
    const entry = await keepTheirs(told);
    if (entry) undoes.push(() => reopenTheirs(entry));
    await note({ what: 'accepted', itemId: shown.id, title: shown.title });
  }
  await putBaselines(rows);
  return async () => {
    for (const undo of undoes) await undo();
    await restoreBaselines(
      rows.map((row) => row.id),
      before
    );
  };
}

/**
 * Of a post that was made here, what stands at its blog is agreed.
 * @returns its entry as it was before; null where nothing was changed there
 */
async function keepTheirs({ origin }: Item): Promise<OutboxEntry | null> {
  const entry = origin ? await getEntry(origin) : undefined;
  if (!entry || !isChangedThere(entry)) return null;
  await settleTheirs(entry.key, 'keep');
  return entry;
}

async function asItStands(video: Item, post: Item, at: string): Promise<Baseline> {
  const details = await getDetails(video.id);
  return baselineOf(video, post, details ? readMark(detailsMark(details)) : undefined, at);
}

async function lostVideosOf(postId: string): Promise<Baseline[]> {
  const rows = await baselinesOfPost(postId);
  const known = await Promise.all(rows.map((row) => getItem(row.video)));
  return rows.filter((_, i) => !known[i]);
}

/**
 * What becomes of a post whose video is gone or hidden: a note stands in place of the player, or the
 * post becomes a draft. Its text stays.
 * @returns what undoes it; null where the post shows no player of the video
 * @throws PlaceError when it could not be done; the outbox goes on trying what may pass
 */
export async function settleLostVideo(
  twin: Twin,
  choice: 'note' | 'draft'
): Promise<(() => Promise<void>) | null> {
  const post = await getItem(twin.post?.id ?? '');
  const place = post && (await getPlace(post.placeId));
  const blog = await blogFor(place);
  if (!post || !place || !blog || !place.rights.includes('update'))
    throw new PlaceError({
      kind: place?.hasKey ? 'right-missing' : 'key-missing',
      url: post?.url ?? ''
    });
  const change =
    choice === 'draft'
      ? {
          what: 'to-draft' as const,
          from: post.visibility === 'private' ? ('private' as const) : ('public' as const)
        }
      : await noteInPlace(twin, post, blog.look.bind(blog));
  if (!change) return null;
  const key = placementKey(post.url, `lost/${choice}`, place.url);
  await requestPublish(
    {
      key,
      itemId: post.id,
      placeId: place.id,
      url: post.url,
      payload: { kind: 'change', title: post.title, change }
    },
    Date.now()
  );
  await deliverEntry(key);
  const entry = await getEntry(key);
  if (entry?.problem) throw new PlaceError(entry.problem);
  const undoAccept = await acceptChanges([twin]);
  return async () => {
    await undoEntry(key);
    await keepTheirs(post);
    await undoAccept();
  };
}

async function noteInPlace(
  twin: Twin,
  post: Item,
  look: (url: string) => Promise<{ html: string } | null>
): Promise<{ what: 'content'; from: string; to: string } | null> {
  const held = await look(post.url);
  if (!held) throw new PlaceError({ kind: 'not-found', url: post.url });
  const rows = await baselinesOfPost(post.id);
  const video = twin.video && (await getItem(twin.video.id));
  const addresses = [
    ...rows.flatMap((row) => row.addresses),
    ...(video ? [video.url, video.embedUrl, video.contentUrl] : [])
  ];
  const to = withoutPlayer(held.html, addresses, (postWords(post.language) ?? ENGLISH_POST).gone);
  return to === held.html ? null : { what: 'content', from: held.html, to };
}
