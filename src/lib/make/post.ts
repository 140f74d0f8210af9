import type { SentenceChoice } from '$lib/core/article/edit/choices.ts';
import { checkPost, needsCredit, type Finding } from '$lib/core/article/review/checks.ts';
import type { ComposedPost, Material } from '$lib/core/article/template/compose.ts';
import type { ArticleLength } from '$lib/core/article/extract/length.ts';
import type { GivenPicture } from '$lib/core/article/extract/givenPicture.ts';
import type { Template } from '$lib/core/article/template/template.ts';
import { DROP_NOISE, type TidyOptions } from '$lib/core/captions/tidyOptions.ts';
import type { Chapter } from '$lib/core/chapters/chapter.ts';
import type { MakeFinding } from '$lib/core/delivery/outbox.ts';
import type { PostPayload } from '$lib/core/delivery/payload.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place } from '$lib/core/model/place.ts';
import type { Details, Draft, Work } from '$lib/core/model/rows.ts';
import type { ComposeApi } from '$lib/workers/composeApi.ts';
import type { Extracted, TalkApi, TalkSource } from '$lib/workers/talkApi.ts';

/** A worker, or its API itself. */
type Offers<Api extends Record<string, (...given: never[]) => unknown>> = {
  [K in keyof Api]: (
    ...given: Parameters<Api[K]>
  ) => Promise<ReturnType<Api[K]>> | ReturnType<Api[K]>;
};
/** Turns talks into text. */
export type TalkWorker = Offers<TalkApi>;
/** Lays out posts. */
export type ComposeWorker = Offers<ComposeApi>;

/** What a post of one video is made from, but for its text and its layout. */
export interface PostSource {
  video: Item;
  channel: Place | null;
  blog: Place | null;
  /** Plain text. */
  description: string;
  details: Details | null;
}

/** The captions of a video with all that decides how they are read; null where it has none. */
export function talkSourceOf(
  { video, details }: Pick<PostSource, 'video' | 'details'>,
  tidy: TidyOptions = DROP_NOISE
): TalkSource | null {
  const cues = details?.cues ?? [];
  return cues.length > 0 ? { cues, tidy, language: video.language } : null;
}

/** The chapters of a post: by hand, else the channel's, else those proposed. */
export const chaptersOf = (
  own: readonly Chapter[] | null,
  details: Details | null,
  proposed: readonly Chapter[] | undefined
): readonly Chapter[] => own ?? (details?.chapters.length ? details.chapters : (proposed ?? []));

/** The article, the transcript and proposals, taken from what is said. */
export async function extractText(
  worker: TalkWorker,
  source: TalkSource,
  options: {
    title: string;
    length: ArticleLength;
    chapters: readonly Chapter[];
    pictures: GivenPicture[];
    choices?: SentenceChoice[];
  }
): Promise<Extracted | null> {
  const chapters = options.chapters.map(({ start, title }) => ({ start, title }));
  return worker.extract(source, { ...options, chapters });
}

export interface PostInput extends PostSource {
  extracted: Extracted | null;
  chapters: readonly Chapter[];
  template: Template;
  /** Origins of other connected places whose players may stand in the post. */
  players?: readonly string[];
  /** The text as edited by hand, and what it was edited from. */
  edited: Work['edited'];
  /** ISO 8601. */
  now: string;
}

/** A post as it would go out. */
export interface MadePost {
  key: string;
  /** As the layout makes it. */
  made: ComposedPost;
  /** As it goes out: with the text as edited, where it was. */
  post: ComposedPost;
}

/** What the layout of a post is filled from. */
export function materialOf(input: Omit<PostInput, 'template' | 'edited'>): Material {
  const { video, channel, blog, description, details, extracted, chapters, now } = input;
  return {
    video,
    description,
    paragraphs: extracted?.paragraphs ?? [],
    article: extracted?.article ?? null,
    chapters: chapters.map(({ start, title }) => ({ start, title })),
    seekTo: details?.seekTo ?? '',
    channel: { title: channel?.title ?? '', url: channel?.url ?? '' },
    blog: { title: blog?.title ?? '', url: blog?.url ?? '' },
    players: [...(channel?.origins ?? []), ...(blog?.origins ?? []), ...(input.players ?? [])],
    now,
    key: blog ? postKey(video, blog) : ''
  };
}

/** Makes a post from a video. Nothing is invented, and nothing is kept. */
export async function makePost(worker: ComposeWorker, input: PostInput): Promise<MadePost> {
  const material = materialOf(input);
  const edited = input.edited?.html ?? null;
  const { made, post } = await worker.compose(input.template, material, edited);
  return { key: material.key, made, post };
}

/** What stands out in a post itself, beside where its text comes from. */
export const findingsOf = (
  post: ComposedPost,
  { video, channel }: Pick<PostSource, 'video' | 'channel'>
): Finding[] => checkPost(post, { needsCredit: needsCredit(video, channel?.author ?? '') });

/**
 * What in a post's text does not come from the talk of its own video, whatever the cause. What was
 * edited by hand is left out: only blocks that stand as they were made are held against the talk.
 * @param cues of the video, as they are kept with it
 */
export async function findForeignText(
  worker: TalkWorker,
  { made, edited }: { made: ComposedPost; edited: Work['edited'] },
  details: Details | null
): Promise<Finding[]> {
  const cues = details?.cues ?? [];
  const foreign = await worker.findForeignText({
    html: edited?.html ?? made.marked,
    base: edited?.base ?? made.marked,
    cues
  });
  if (foreign.length === 0) return [];
  return [
    {
      where: 'text',
      level: 'wrong',
      kind: 'not-from-talk',
      count: foreign.length,
      text: foreign[0] ?? ''
    }
  ];
}

/** Findings of a post as a lane weighs them: foreign text is never let through. */
export const weighed = (findings: readonly Finding[]): MakeFinding[] =>
  findings.map((finding) => ({
    of: 'post',
    level: finding.kind === 'not-from-talk' ? 'blocking' : finding.level,
    finding: { ...finding }
  }));

/** What is sent for a composed post. */
export function toPayload(post: ComposedPost, draft: Pick<Draft, 'status' | 'on'>): PostPayload {
  const { title, html, slug, excerpt, author, categories, tags, comments, picture } = post;
  return {
    title,
    html,
    slug,
    excerpt,
    author,
    categories,
    tags,
    comments,
    picture: picture && { url: picture.url, alt: picture.alt },
    status: draft.status,
    date: draft.status === 'dated' && draft.on ? new Date(draft.on).toISOString() : post.date
  };
}

/** The key of a video's post at a blog, the same on every machine. */
export const postKey = (video: Item, blog: Pick<Place, 'url'>): string =>
  placementKey(video.url || video.nativeId, 'post', blog.url);
