import { z } from 'zod';
import { pictureSchema } from './item.ts';
import { relationSchema } from './tie.ts';

export const standingSchema = z.enum([
  'in-step',
  'no-post',
  'no-video',
  'drifted',
  'in-hand',
  'set-aside'
]);
export type Standing = z.infer<typeof standingSchema>;

export const differenceSchema = z.object({
  kind: z.enum(['title']),
  video: z.string(),
  post: z.string()
});
export type Difference = z.infer<typeof differenceSchema>;

/** What was changed of one half at its place since both were last in step. */
export const changeSchema = z.object({
  side: z.enum(['video', 'post']),
  what: z.enum([
    'title',
    'description',
    'captions',
    'chapters',
    'picture',
    'length',
    'visibility',
    'gone',
    'text',
    'tags',
    /** A post was edited, and it is not known where in it. */
    'edited'
  ]),
  /** What it was and is, where that can be said in a few words. */
  before: z.string(),
  after: z.string(),
  /** ISO 8601 of when its place says that it was changed, or null. */
  on: z.string().nullable()
});
export type Change = z.infer<typeof changeSchema>;

/** Why a twin has the standing it has. */
export const twinReasonSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('embeds') }),
  z.object({ kind: z.literal('links') }),
  z.object({ kind: z.literal('made-here') }),
  /** The user paired them. */
  z.object({ kind: z.literal('paired'), relation: relationSchema }),
  z.object({ kind: z.literal('alone') }),
  z.object({ kind: z.literal('premiere'), on: z.string() }),
  z.object({
    kind: z.literal('differs'),
    differences: z.array(differenceSchema),
    changes: z.array(changeSchema)
  }),
  z.object({ kind: z.literal('post-is-draft') }),
  z.object({ kind: z.literal('post-is-private') }),
  z.object({ kind: z.literal('post-is-dated'), on: z.string() }),
  z.object({ kind: z.literal('video-is-private') }),
  z.object({ kind: z.literal('video-is-dated'), on: z.string() }),
  /** The post is still to show the video that was made from it. */
  z.object({ kind: z.literal('embedding') }),
  z.object({ kind: z.literal('on-the-desk'), since: z.string() }),
  z.object({ kind: z.literal('in-the-booth'), since: z.string() }),
  /** A video made from a post that is not here any more: never a source for another post. */
  z.object({ kind: z.literal('post-is-gone') }),
  /** The video that a post belonged to is gone, and the user knows it. */
  z.object({ kind: z.literal('video-is-gone') }),
  /** Made by a lane: it waits for the user, or for its turn. */
  z.object({ kind: z.literal('in-review') }),
  z.object({ kind: z.literal('planned') }),
  z.object({ kind: z.literal('publishing') }),
  z.object({ kind: z.literal('publish-failed') }),
  z.object({ kind: z.literal('set-aside'), on: z.string() })
]);
export type TwinReason = z.infer<typeof twinReasonSchema>;

/** One half as the home view shows it. */
export const halfSchema = z.object({
  id: z.string(),
  title: z.string(),
  url: z.string(),
  date: z.string().nullable(),
  duration: z.number().nullable(),
  picture: pictureSchema.nullable(),
  visibility: z.string(),
  language: z.string(),
  hasCaptions: z.boolean(),
  isMade: z.boolean()
});
export type Half = z.infer<typeof halfSchema>;

/** A video and a post that belong together, or one of them alone. */
export const twinSchema = z.object({
  id: z.string(),
  video: halfSchema.nullable(),
  post: halfSchema.nullable(),
  standing: standingSchema,
  reason: twinReasonSchema,
  /** Further posts that frame or link the same video. */
  otherPosts: z.array(z.string()),
  /** ISO 8601 of its newer half; what the home view is ordered by. */
  date: z.string()
});
export type Twin = z.infer<typeof twinSchema>;
