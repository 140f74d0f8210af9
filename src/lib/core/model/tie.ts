import { z } from 'zod';

/**
 * How a video and a post belong together: one to one; the post tells of several videos; the video has several posts;
 * or one of them is only a part of the other.
 */
export const relationSchema = z.enum(['twin', 'several-videos', 'several-posts', 'part-of']);
export type Relation = z.infer<typeof relationSchema>;

/** What the user decided about a video and a post: that they belong together, or that they do not. */
export const tieSchema = z.object({
  /** Their ids joined by a space, the video's first. */
  id: z.string(),
  video: z.string(),
  post: z.string(),
  relation: relationSchema.or(z.literal('none')),
  /** As they were then: that they differ is no drift. */
  titles: z.object({ video: z.string(), post: z.string() }),
  /** ISO 8601. */
  at: z.string()
});
export type Tie = z.infer<typeof tieSchema>;

export const tieId = (video: string, post: string): string => `${video} ${post}`;
