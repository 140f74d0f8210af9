import type { Baseline, Making, PostFacts, VideoFacts } from '../model/baseline.ts';
import { largestPicture, type Item, type Visibility } from '../model/item.ts';
import { tieId } from '../model/tie.ts';
import type { Change } from '../model/twin.ts';

/** What is known of how halves stood, and of what went out from here. Times are milliseconds since 1970. */
export interface Remembered {
  /** By the ids of video and post, joined by a space. */
  baselines: ReadonlyMap<string, Baseline>;
  /** What posts that were last sent from here were made from, by their keys. */
  makings: ReadonlyMap<string, Making>;
  /** Hashes of captions and chapters, by video id. */
  details: ReadonlyMap<string, { captions: string; chapters: string }>;
  /** When an item was last sent or changed from here, by its key or its id. */
  sent: ReadonlyMap<string, number>;
  /** When a connected place was last read. */
  read: ReadonlyMap<string, number>;
}

export const nothingRemembered: Remembered = {
  baselines: new Map(),
  makings: new Map(),
  details: new Map(),
  sent: new Map(),
  read: new Map()
};

/** Addresses of pictures carry sizes, dates and servers that say nothing of the picture. */
const pictureName = (url: string): string =>
  url.replace(/[?#].*/s, '').replace(/^\w+:\/\/[^/]*/, '');

export function videoFactsOf(
  video: Item,
  details: { captions: string; chapters: string } | undefined
): VideoFacts {
  const picture = largestPicture(video.pictures);
  return {
    title: video.title,
    description: video.textHash ?? null,
    captions: details?.captions ?? null,
    chapters: details?.chapters ?? null,
    picture: picture && pictureName(picture.url),
    length: video.duration === null ? null : Math.round(video.duration),
    visibility: video.visibility
  };
}

export const postFactsOf = (post: Item): PostFacts => ({
  title: post.title,
  text: post.textHash ?? null,
  tags: [...post.tags].sort(),
  visibility: post.visibility
});

/** How many can see it. */
const REACH: Record<Visibility, number> = {
  public: 2,
  unlisted: 1,
  scheduled: 0,
  private: 0,
  draft: 0
};
const isMoreSeen = (now: Visibility, before: Visibility): boolean => REACH[now] > REACH[before];

/** Lengths within a second of each other are rounded otherwise. */
const LENGTH_SLACK = 1;

/**
 * What was changed of a twin at its places since both halves were last in step. Titles are left out:
 * whether they differ is told apart.
 */
export function changesOf(video: Item, post: Item, remembered: Remembered): Change[] {
  const base = baseOf(video, post, remembered);
  return [
    ...(base.video ? videoChanges(base.video, video, remembered) : []),
    ...(base.post ? postChanges(base.post, post) : [])
  ];
}

/** Whether one of the titles was changed since; null where it is not known how they stood. */
export function isRetitled(video: Item, post: Item, remembered: Remembered): boolean | null {
  const base = baseOf(video, post, remembered);
  if (!base.video && !base.post) return null;
  return (
    (base.video !== null && base.video.title !== video.title) ||
    (base.post !== null && base.post.title !== post.title)
  );
}

/** How both halves stood when they were last in step; null for one that is not known or in flux. */
function baseOf(
  video: Item,
  post: Item,
  remembered: Remembered
): { video: VideoFacts | null; post: PostFacts | null } {
  const row = remembered.baselines.get(tieId(video.id, post.id));
  const making = post.origin ? remembered.makings.get(post.origin) : undefined;
  const ofVideo =
    making && (!row || making.at > row.ofVideo.at)
      ? { facts: making.video, at: making.at }
      : row?.ofVideo;
  const isOurs = (item: Item, at: string) => sentAt(item, remembered) > Date.parse(at);
  return {
    video: ofVideo && !isOurs(video, ofVideo.at) ? ofVideo.facts : null,
    // What was sent from here since is no change that somebody made there.
    post: row && !isOurs(post, row.ofPost.at) ? row.ofPost.facts : null
  };
}

const sentAt = (item: Item, { sent }: Remembered): number =>
  Math.max(sent.get(item.id) ?? 0, (item.origin && sent.get(item.origin)) || 0);

function videoChanges(before: VideoFacts, video: Item, { details }: Remembered): Change[] {
  const now = videoFactsOf(video, details.get(video.id));
  const changes: Change[] = [];
  const add = (what: Change['what'], was = '', is = '') =>
    changes.push({ side: 'video', what, before: was, after: is, on: video.updated });
  const differs = (field: 'description' | 'captions' | 'chapters' | 'picture') =>
    before[field] !== null && now[field] !== null && before[field] !== now[field];
  // A video that is hidden is read in another way than one in the feed: what is said of it may differ.
  if (isMoreSeen(before.visibility, now.visibility)) {
    add('visibility', before.visibility, now.visibility);
    return changes;
  }
  for (const field of ['description', 'captions', 'chapters', 'picture'] as const)
    if (differs(field)) add(field);
  if (
    before.length !== null &&
    now.length !== null &&
    Math.abs(before.length - now.length) > LENGTH_SLACK
  )
    add('length', String(before.length), String(now.length));
  return changes;
}

function postChanges(before: PostFacts, post: Item): Change[] {
  const now = postFactsOf(post);
  const changes: Change[] = [];
  const add = (what: Change['what'], was = '', is = '') =>
    changes.push({ side: 'post', what, before: was, after: is, on: post.updated });
  if (isMoreSeen(before.visibility, now.visibility))
    add('visibility', before.visibility, now.visibility);
  // A post that is hidden is read in another way than one in the feed: its text may come whole.
  else if (before.text !== null && now.text !== null && before.text !== now.text) add('text');
  const [was, is] = [before.tags.join(', '), now.tags.join(', ')];
  if (was !== is) add('tags', was, is);
  return changes;
}

/** Both halves as they stand now. @param at ISO 8601 */
export function baselineOf(
  video: Item,
  post: Item,
  details: { captions: string; chapters: string } | undefined,
  at: string
): Baseline {
  return {
    id: tieId(video.id, post.id),
    video: video.id,
    post: post.id,
    channel: video.placeId,
    addresses: [video.url, video.embedUrl, video.contentUrl].filter(Boolean),
    ofVideo: { facts: videoFactsOf(video, details), at },
    ofPost: { facts: postFactsOf(post), at },
    isGoneAccepted: false
  };
}

/**
 * What is to be remembered of a twin from now on.
 * @param isInStep nothing speaks against taking both halves as they stand for a beginning
 * @param now ISO 8601
 * @returns null where it is what is remembered already, or nothing
 */
export function nextBaseline(
  video: Item,
  post: Item,
  remembered: Remembered,
  isInStep: boolean,
  now: string
): Baseline | null {
  const stands = baselineOf(video, post, remembered.details.get(video.id), now);
  const row = remembered.baselines.get(stands.id);
  if (!row) {
    // What was sent from here may not have been read yet.
    const isRead = [video, post].every(
      (item) => sentAt(item, remembered) <= (remembered.read.get(item.placeId) ?? 0)
    );
    if (!isInStep || !isRead) return null;
    const making = post.origin ? remembered.makings.get(post.origin) : undefined;
    // The channel may have changed it between the making and this first look.
    return making ? { ...stands, ofVideo: { facts: making.video, at: making.at } } : stands;
  }
  const ofVideo = advanced(row.ofVideo, stands.ofVideo.facts, video, remembered, now);
  const ofPost = advanced(row.ofPost, stands.ofPost.facts, post, remembered, now);
  if (ofVideo === row.ofVideo && ofPost === row.ofPost && !row.isGoneAccepted) return null;
  return { ...row, ofVideo, ofPost, isGoneAccepted: false };
}

/** A side that was sent from here, or that more can see, is remembered anew; else what was not known. */
function advanced<Facts extends VideoFacts | PostFacts>(
  before: { facts: Facts; at: string },
  now: Facts,
  item: Item,
  remembered: Remembered,
  at: string
): { facts: Facts; at: string } {
  const sent = sentAt(item, remembered);
  if (sent > Date.parse(before.at))
    return (remembered.read.get(item.placeId) ?? 0) > sent ? { facts: now, at } : before;
  if (isMoreSeen(now.visibility, before.facts.visibility)) return { facts: now, at };
  const learned = Object.entries(now).filter(
    ([field, value]) => value !== null && before.facts[field as keyof Facts] === null
  );
  return learned.length > 0
    ? { facts: { ...before.facts, ...Object.fromEntries(learned) }, at: before.at }
    : before;
}
