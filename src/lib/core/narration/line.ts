import { z } from 'zod';
import { pronunciationSchema } from './normalization/pronunciation.ts';

export const scriptOptionsSchema = z.object({
  /** BCP 47. */
  language: z.string(),
  /** On the screen: a few words of each sentence, or the sentence itself. */
  words: z.enum(['gist', 'sentence']).default('gist'),
  announcesHeadings: z.boolean().default(true),
  /** What cannot be read out: passed over, or told in a line. */
  asides: z.enum(['leave-out', 'tell']).default('leave-out'),
  countsLists: z.boolean().default(true),
  /** Seconds the reading may take at most; null reads the whole post. */
  target: z.number().positive().nullable().default(null),
  /** Lines that every cut keeps, by id. */
  pinned: z.array(z.string()).default([]),
  pronunciations: z.array(pronunciationSchema).default([]),
  speed: z.number().min(0.5).max(2).default(1)
});
export type ScriptOptions = z.infer<typeof scriptOptionsSchema>;

/** Something that is said in one go. */
export const lineSchema = z.object({
  id: z.string(),
  /** As it is written in the post, and shown. */
  text: z.string(),
  /** As it is said; empty when it is only shown. */
  spoken: z.string(),
  /** Where it stands in the post: its block, and characters of the block's text; null for what was added. */
  source: z.object({ block: z.number(), from: z.number(), to: z.number() }).nullable(),
  /** Read by the user instead of the voice: the name of the kept sentence, and what was said by then. */
  take: z.object({ key: z.string(), spoken: z.string() }).optional()
});
export type Line = z.infer<typeof lineSchema>;

/** Seconds that a picture without words stays. */
export const SILENT_PICTURE = 3;

/** How a line was said. */
export interface SpokenLine {
  /** Seconds. */
  seconds: number;
  /** When each word of the spoken text begins, in seconds from the line's start; empty where it is not known. */
  words: number[];
}

/** Seconds before the first word, after the last, and that the end card stays beyond them. */
export const LEAD = 0.4;
export const TAIL = 0.8;
export const END_HOLD = 2;
/** The breath between two paragraphs, in pauses between sentences, beyond the usual one. */
export const BREATH = 0.8;
/** Captions must be readable at this many characters a second, and a second at the least, so a pause may grow for them. */
export const READABLE = 17;
export const MIN_CAPTION = 1;
