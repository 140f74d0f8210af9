import { z } from 'zod';
import { templateSchema } from '../article/template/template.ts';
import { visibilitySchema } from './item.ts';

/** Null where it was not known: that it is known later is no change. */
const known = z.string().nullable();

/** What is compared of a video to tell whether it was changed at its channel. */
export const videoFactsSchema = z.object({
  title: z.string(),
  /** Hashes. */
  description: known,
  captions: known,
  chapters: known,
  /** Address of the largest. */
  picture: known,
  /** Whole seconds. */
  length: z.number().nullable(),
  visibility: visibilitySchema
});
export type VideoFacts = z.infer<typeof videoFactsSchema>;

/** What is compared of a post to tell whether it was changed at its blog. */
export const postFactsSchema = z.object({
  title: z.string(),
  /** A hash. */
  text: known,
  tags: z.array(z.string()),
  visibility: visibilitySchema
});
export type PostFacts = z.infer<typeof postFactsSchema>;

/** How both halves of a twin stood when they were last in step. */
export const baselineSchema = z.object({
  /** Ids of the video and the post, joined by a space. */
  id: z.string(),
  video: z.string(),
  post: z.string(),
  /** The channel of the video: one that is not connected any more has not lost it. */
  channel: z.string(),
  /** Where the video stands or stood: its page, its player, its file. */
  addresses: z.array(z.string()).default([]),
  /** `at` is ISO 8601. */
  ofVideo: z.object({ facts: videoFactsSchema, at: z.string() }),
  ofPost: z.object({ facts: postFactsSchema, at: z.string() }),
  /** The user knows that the video is gone. */
  isGoneAccepted: z.boolean().default(false)
});
export type Baseline = z.infer<typeof baselineSchema>;

/** What a post that goes out was made from. */
export const makingSchema = z.object({
  /** The same for the same post made of the same. */
  id: z.string(),
  /** Of the outbox entry. */
  key: z.string(),
  /** ISO 8601. */
  at: z.string(),
  video: videoFactsSchema
});
export type Making = z.infer<typeof makingSchema>;

/** The post as it was made then, before any edit by hand, and the layout it was made with. */
export const makingTextSchema = z.object({
  id: z.string(),
  title: z.string(),
  excerpt: z.string(),
  tags: z.array(z.string()),
  picture: z.string(),
  html: z.string(),
  template: templateSchema
});
export type MakingText = z.infer<typeof makingTextSchema>;
