import { z } from 'zod';

/** What a place takes of an update, as it publishes it. Lengths are graphemes. */
export const updateLimitsSchema = z.object({
  /** Longest text. */
  text: z.number().int().positive(),
  /** What every link counts as, whatever its length; null where links count as they are. */
  linkWeight: z.number().int().positive().nullable().default(null),
  /** Longest title, or null where an update has none. */
  title: z.number().int().positive().nullable().default(null),
  picture: z.enum(['required', 'optional', 'none']).default('optional'),
  /** Width over height that pictures are shown at, or null where any will do. */
  pictureShape: z.number().positive().nullable().default(null),
  /** Most hashtags in one update. */
  hashtags: z.number().int().nonnegative().default(0),
  hashtagStyle: z.enum(['joined', 'capitals']).default('joined'),
  /** A button with a link beside the text. */
  hasButton: z.boolean().default(false),
  poll: z
    .object({
      question: z.number().int().positive(),
      option: z.number().int().positive(),
      most: z.number().int().min(2)
    })
    .nullable()
    .default(null),
  hasQuiz: z.boolean().default(false),
  /** Several updates may follow each other as one. */
  hasThreads: z.boolean().default(false),
  /** Moving pictures: seconds, bytes and media types that are taken; null where there are none. */
  clip: z
    .object({
      seconds: z.number().positive(),
      bytes: z.number().int().positive(),
      types: z.array(z.string())
    })
    .nullable()
    .default(null),
  /** Graphemes that are shown in a stream before the rest is folded away. */
  shownInStream: z.number().int().positive().default(200)
});
export type UpdateLimits = z.infer<typeof updateLimitsSchema>;
