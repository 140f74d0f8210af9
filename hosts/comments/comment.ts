import { z } from 'zod';

/** What somebody wrote under an upload, or what a post shows of it. `at` is milliseconds since 1970. */
export const commentSchema = z.object({
  id: z.string(),
  /** Id of the upload. */
  video: z.string(),
  author: z.string(),
  site: z.string().default(''),
  html: z.string(),
  at: z.number(),
  /** Id of the comment that it answers, or empty. */
  answers: z.string().default('')
});
export type Comment = z.infer<typeof commentSchema>;
