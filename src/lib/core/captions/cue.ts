import { z } from 'zod';

/** A stamp inside a cue: the text from `offset` (in characters) on is said at `at` (seconds). */
export const stampSchema = z.object({ at: z.number(), offset: z.number() });

/** Times are seconds. */
export const cueSchema = z.object({
  start: z.number(),
  end: z.number(),
  text: z.string(),
  /** Who speaks, where the captions say so. */
  speaker: z.string().optional(),
  stamps: z.array(stampSchema).optional()
});
export type Cue = z.infer<typeof cueSchema>;

/** A caption file that cannot be read: what is wrong, and in which line (from 1). */
export class CaptionError extends Error {
  constructor(
    message: string,
    readonly line: number
  ) {
    super(message);
  }
}
