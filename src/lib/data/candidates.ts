import type { Lane } from '$lib/core/lanes/lane.ts';
import { Likenesses } from '$lib/core/lanes/likeness.ts';
import { isUpdate, isVideo } from '$lib/core/lanes/outbox.ts';
import type { Candidate } from '$lib/core/lanes/sift.ts';
import { htmlText } from '$lib/core/feeds/text.ts';
import { db } from './db.ts';

/** All that the sources of a lane have in the catalogue. Heavy: runs in a worker. */
export async function candidatesOf(lane: Lane): Promise<Candidate[]> {
  const items = await db.items.where('placeId').anyOf(lane.source.places).toArray();
  const owners = new Map((await db.places.toArray()).map((p) => [p.id, p.author]));
  const twins = new Map<string, Candidate['twin']>();
  for (const { video, post, standing, reason } of await db.twins.toArray()) {
    const facts = {
      isSetAside: standing === 'set-aside',
      isInHand: reason.kind === 'on-the-desk' || reason.kind === 'in-the-booth'
    };
    if (video) twins.set(video.id, { ...facts, other: post?.title ?? null });
    if (post) twins.set(post.id, { ...facts, other: video?.title ?? null });
  }
  const made = await madeTexts();
  const listed = await listedItems(lane.source.playlists);
  const { fewestWords, mostWords } = lane.sift;
  const needsText = fewestWords !== null || mostWords !== null;
  const candidates: Candidate[] = [];
  for (const item of items) {
    const isCompared = item.kind === 'post' && item.origin === null && !made.isEmpty;
    const body = needsText || isCompared ? ((await db.bodies.get(item.id))?.html ?? '') : '';
    const text = body ? htmlText(body) : item.summary;
    candidates.push({
      item,
      words: needsText ? (text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0) : 0,
      owner: owners.get(item.placeId) ?? '',
      likeMade: isCompared ? made.find(text) : null,
      isInPlaylist: listed.has(item.nativeId),
      twin: twins.get(item.id) ?? { other: null, isSetAside: false, isInHand: false }
    });
  }
  return candidates;
}

/** The texts that were placed by this application, to know them again without their marks. */
async function madeTexts(): Promise<Likenesses> {
  const made = new Likenesses();
  for (const { payload, state } of await db.outbox.toArray())
    if (state === 'placed' && !isUpdate(payload) && !isVideo(payload))
      made.add(payload.title, htmlText(payload.html));
  return made;
}

/** What the channels call the items of some playlists. */
async function listedItems(urls: readonly string[]): Promise<Set<string>> {
  const playlists = await db.playlists.bulkGet([...urls]);
  return new Set(playlists.flatMap((p) => p?.members ?? []));
}
