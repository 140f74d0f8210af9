import { canonicalAddress } from '../feeds/address.ts';
import { pictureFor, type Item } from '../model/item.ts';
import { tieId, type Relation, type Tie as Decided } from '../model/tie.ts';
import type { Change, Difference, Half, Standing, Twin, TwinReason } from '../model/twin.ts';
import { changesOf, isRetitled, nothingRemembered, type Remembered } from './drift.ts';

/** How far what is to be published has come: it waits for review, for its time, or is being sent. */
export type Publishing = 'in-review' | 'planned' | 'under-way' | 'failed';

/** What the user decided and what is under way; by item id unless said otherwise. */
export interface Circumstances {
  /** ISO 8601 of the decision. */
  setAside: ReadonlyMap<string, string>;
  /** Titles that the user accepted as they are; by video id, then post id, joined by a space. */
  accepted: ReadonlyMap<string, { video: string; post: string }>;
  /** Since when a video lies on the desk, ISO 8601. */
  onDesk: ReadonlyMap<string, string>;
  /** Since when a post lies in the booth, ISO 8601. */
  inBooth: ReadonlyMap<string, string>;
  /** Of what was made from an item, for the other side. */
  publishing: ReadonlyMap<string, Publishing>;
  /** Posts that are still to show the video that was made from them. */
  embedding: ReadonlySet<string>;
  /** Keys of posts that somebody changed at their blog since they were last sent. */
  changedThere: ReadonlySet<string>;
  /** What the user said belongs together, or does not. */
  ties: readonly Decided[];
  /** Ids of all videos that are known, copies of others included. */
  known: ReadonlySet<string>;
  remembered: Remembered;
}

export const noCircumstances: Circumstances = {
  setAside: new Map(),
  accepted: new Map(),
  onDesk: new Map(),
  inBooth: new Map(),
  publishing: new Map(),
  embedding: new Set(),
  changedThere: new Set(),
  ties: [],
  known: new Set(),
  remembered: nothingRemembered
};

type Tie = 'made-here' | 'embeds' | 'links' | Relation;
/** A further post about a video stands behind whatever shows or links to it. */
const STRENGTH: Record<Tie, number> = {
  twin: 0,
  'several-videos': 0,
  'part-of': 0,
  'made-here': 1,
  embeds: 2,
  links: 3,
  'several-posts': 4
};

/** The width, in pixels, for which the home view wants a picture. */
const THUMBNAIL = 160;

/**
 * Pairs videos with the posts that frame or link them and tells how each pair stands. A post
 * belongs to the first video it frames, else to the first it links, and to all that the user paired it with; of
 * several posts that claim one video the strongest tie wins, then the oldest post.
 * Time grows in proportion to items and their links.
 * @returns twins, newest first
 */
export function pairTwins(
  videos: readonly Item[],
  posts: readonly Item[],
  circumstances: Circumstances = noCircumstances
): Twin[] {
  const byAddress = indexVideos(videos);
  const claims = new Map<string, { post: Item; tie: Tie }[]>();
  const alone: Item[] = [];
  const madeOf = madeVideos(videos);
  const { tied, refused } = decidedTies(videos, circumstances.ties);
  for (const post of posts) {
    const claim = claimOf(post, byAddress, refused);
    const own = tied.get(post.id) ?? [];
    const made = madeOf.get(canonicalAddress(post.url)) ?? [];
    // A post stands beside every video that was made from it, whatever else it shows.
    for (const video of made) claims.set(video.id, [{ post, tie: 'made-here' }]);
    for (const { video, relation } of own)
      claims.set(video, [...(claims.get(video) ?? []), { post, tie: relation }]);
    if (claim && (made.includes(claim.video) || own.some((t) => t.video === claim.video.id)))
      continue;
    if (!claim) {
      if (made.length === 0 && own.length === 0) alone.push(post);
    } else {
      const rivals = claims.get(claim.video.id);
      if (rivals) rivals.push({ post, tie: claim.tie });
      else claims.set(claim.video.id, [{ post, tie: claim.tie }]);
    }
  }
  const twins = videos.map((video) => {
    const rivals = (claims.get(video.id) ?? []).sort(
      (a, b) =>
        STRENGTH[a.tie] - STRENGTH[b.tie] ||
        (a.post.published ?? '').localeCompare(b.post.published ?? '')
    );
    const [first, ...others] = rivals;
    return toTwin(
      video,
      first?.post ?? null,
      first?.tie ?? null,
      others.map((o) => o.post.id),
      circumstances
    );
  });
  const lost = lostVideos(videos, circumstances);
  for (const post of alone) {
    const twin = toTwin(null, post, null, [], circumstances);
    const gone = lost.get(post.id);
    twins.push(gone && twin.reason.kind === 'alone' ? { ...twin, ...gone } : twin);
  }
  return twins.sort((a, b) => (a.date < b.date ? 1 : a.date > b.date ? -1 : a.id < b.id ? -1 : 1));
}

function indexVideos(videos: readonly Item[]): Map<string, Item> {
  const index = new Map<string, Item>();
  for (const video of videos) {
    for (const address of [video.url, video.embedUrl, video.contentUrl]) {
      const key = canonicalAddress(address);
      if (key && !index.has(key)) index.set(key, video);
    }
  }
  return index;
}

/** Videos that say which post they were made from, by its address. */
function madeVideos(videos: readonly Item[]): Map<string, Item[]> {
  const made = new Map<string, Item[]>();
  for (const video of videos) {
    if (!video.madeFrom) continue;
    const address = canonicalAddress(video.madeFrom);
    made.set(address, [...(made.get(address) ?? []), video]);
  }
  return made;
}

/** What the user paired by the post, and what the user said does not belong together. */
function decidedTies(
  videos: readonly Item[],
  ties: readonly Decided[]
): { tied: Map<string, { video: string; relation: Relation }[]>; refused: Set<string> } {
  const known = new Set(videos.map((video) => video.id));
  const tied = new Map<string, { video: string; relation: Relation }[]>();
  const refused = new Set<string>();
  for (const { video, post, relation } of ties) {
    if (relation === 'none') refused.add(tieId(video, post));
    // A video that is gone leaves its post alone.
    else if (known.has(video)) tied.set(post, [...(tied.get(post) ?? []), { video, relation }]);
  }
  return { tied, refused };
}

/** Posts whose video was there, and is not any more, with what that makes of them. */
function lostVideos(
  videos: readonly Item[],
  { known, ties, remembered: { baselines, read } }: Circumstances
): Map<string, Pick<Twin, 'standing' | 'reason'>> {
  const here = new Set([...known, ...videos.map((video) => video.id)]);
  const refused = new Set(ties.flatMap((tie) => (tie.relation === 'none' ? [tie.id] : [])));
  const lost = new Map<string, Pick<Twin, 'standing' | 'reason'>>();
  for (const { id, video, post, channel, ofVideo, isGoneAccepted } of baselines.values()) {
    // Of a channel that is not connected any more nothing is known.
    if (here.has(video) || refused.has(id) || !read.has(channel)) continue;
    if (isGoneAccepted) {
      lost.set(post, { standing: 'no-video', reason: { kind: 'video-is-gone' } });
      continue;
    }
    const { title } = ofVideo.facts;
    const change: Change = { side: 'video', what: 'gone', before: title, after: '', on: null };
    lost.set(post, {
      standing: 'drifted',
      reason: { kind: 'differs', differences: [], changes: [change] }
    });
  }
  return lost;
}

function claimOf(
  post: Item,
  byAddress: ReadonlyMap<string, Item>,
  refused: ReadonlySet<string>
): { video: Item; tie: Tie } | null {
  for (const [addresses, tie] of [
    [post.embeds, 'embeds'],
    [post.links, 'links']
  ] as const) {
    for (const address of addresses) {
      const video = byAddress.get(canonicalAddress(address));
      if (video && !refused.has(tieId(video.id, post.id)))
        return { video, tie: post.origin ? 'made-here' : tie };
    }
  }
  return null;
}

function toTwin(
  video: Item | null,
  post: Item | null,
  tie: Tie | null,
  otherPosts: string[],
  circumstances: Circumstances
): Twin {
  const dates = [video?.published, post?.published].filter((d): d is string => Boolean(d));
  return {
    id: video?.id ?? post?.id ?? '',
    video: video && toHalf(video),
    post: post && toHalf(post),
    ...standingOf(video, post, tie, circumstances),
    otherPosts,
    date: dates.sort().at(-1) ?? ''
  };
}

const STAGES = {
  'in-review': 'in-review',
  planned: 'planned',
  'under-way': 'publishing',
  failed: 'publish-failed'
} as const;

function standingOf(
  video: Item | null,
  post: Item | null,
  tie: Tie | null,
  circumstances: Circumstances
): { standing: Standing; reason: TwinReason } {
  const { setAside, onDesk, inBooth, publishing, embedding } = circumstances;
  const aside = setAside.get(video?.id ?? post?.id ?? '');
  if (aside) return { standing: 'set-aside', reason: { kind: 'set-aside', on: aside } };
  const stage =
    (video && publishing.get(video.id)) ?? (post && !video ? publishing.get(post.id) : undefined);
  if (stage) return { standing: 'in-hand', reason: { kind: STAGES[stage] } };
  if (video && !post) {
    const since = onDesk.get(video.id);
    if (since) return { standing: 'in-hand', reason: { kind: 'on-the-desk', since } };
    if (video.madeFrom) return { standing: 'no-post', reason: { kind: 'post-is-gone' } };
    const isComing = video.visibility === 'scheduled' && video.published;
    return {
      standing: 'no-post',
      reason: isComing ? { kind: 'premiere', on: video.published ?? '' } : { kind: 'alone' }
    };
  }
  if (!video || !post) {
    const since = post && inBooth.get(post.id);
    return since
      ? { standing: 'in-hand', reason: { kind: 'in-the-booth', since } }
      : { standing: 'no-video', reason: { kind: 'alone' } };
  }
  const changes = changesAt(video, post, circumstances);
  if (changes.length > 0) {
    const differences = differencesOf(video, post, circumstances);
    return { standing: 'drifted', reason: { kind: 'differs', differences, changes } };
  }
  if (post.visibility === 'draft')
    return { standing: 'in-hand', reason: { kind: 'post-is-draft' } };
  if (post.visibility === 'scheduled') {
    return { standing: 'in-hand', reason: { kind: 'post-is-dated', on: post.published ?? '' } };
  }
  // Only what everybody can watch is in step with its post.
  if (video.visibility === 'scheduled' && tie === 'made-here')
    return { standing: 'in-hand', reason: { kind: 'video-is-dated', on: video.published ?? '' } };
  if (video.visibility === 'private')
    return { standing: 'in-hand', reason: { kind: 'video-is-private' } };
  if (embedding.has(post.id)) return { standing: 'in-hand', reason: { kind: 'embedding' } };
  const differences = differencesOf(video, post, circumstances);
  if (differences.length > 0)
    return { standing: 'drifted', reason: { kind: 'differs', differences, changes } };
  if (post.visibility === 'private')
    return { standing: 'in-step', reason: { kind: 'post-is-private' } };
  if (tie === null || tie === 'made-here' || tie === 'embeds' || tie === 'links')
    return { standing: 'in-step', reason: { kind: tie ?? 'links' } };
  return { standing: 'in-step', reason: { kind: 'paired', relation: tie } };
}

/** What was changed of both at their places, titles apart. */
function changesAt(video: Item, post: Item, { changedThere, remembered }: Circumstances): Change[] {
  const changes = changesOf(video, post, remembered);
  const isEdited = post.origin !== null && changedThere.has(post.origin);
  if (!isEdited || changes.some((change) => change.side === 'post')) return changes;
  return [...changes, { side: 'post', what: 'edited', before: '', after: '', on: post.updated }];
}

/**
 * What a video says otherwise than its post. Titles that differ from the start are a choice; they
 * have drifted when one was changed since both were in step or since the user accepted them. Where that
 * is not known, when the video was changed after the post.
 */
function differencesOf(
  video: Item,
  post: Item,
  { accepted, remembered }: Circumstances
): Difference[] {
  if (plain(video.title) === plain(post.title)) return [];
  const agreed = accepted.get(tieId(video.id, post.id));
  if (agreed?.video === video.title && agreed.post === post.title) return [];
  const changedSince = (video.updated ?? '') > (post.updated ?? post.published ?? '');
  const hasDrifted = agreed ? true : (isRetitled(video, post, remembered) ?? changedSince);
  return hasDrifted ? [{ kind: 'title', video: video.title, post: post.title }] : [];
}

const plain = (title: string): string =>
  title
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

function toHalf(item: Item): Half {
  return {
    id: item.id,
    title: item.title,
    url: item.url,
    date: item.published,
    duration: item.duration,
    picture: pictureFor(item.pictures, THUMBNAIL),
    visibility: item.visibility,
    language: item.language,
    hasCaptions: item.captions.length > 0,
    isMade: item.origin !== null
  };
}
