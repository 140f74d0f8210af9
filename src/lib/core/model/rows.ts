import { z } from 'zod';
import { sentenceChoiceSchema } from '../article/edit/choices.ts';
import { givenPictureSchema } from '../article/extract/givenPicture.ts';
import { templateSchema } from '../article/template/template.ts';
import { cueSchema } from '../captions/cue.ts';
import { tidyOptionsSchema } from '../captions/tidyOptions.ts';
import { chapterSchema, editedChapterSchema } from '../chapters/chapter.ts';

/** Rows that are kept of an item or a file beside what the model says of them. */

/** The cleaned HTML of an item, kept apart because lists do not need it. */
export const bodySchema = z.object({ id: z.string(), html: z.string() });
export type Body = z.infer<typeof bodySchema>;

/** What the page of a video told beyond its feed. */
export const detailsSchema = z.object({
  id: z.string(),
  cues: z.array(cueSchema),
  chapters: z.array(chapterSchema),
  seekTo: z.string(),
  /** When the channel said that the video was last changed, as this was read; ISO 8601. */
  asOf: z.string().optional(),
  /** Hashes of its captions and its chapters, so that neither has to be read to compare them. */
  mark: z.string().optional(),
  /** The captions were imported by hand; reading the channel again leaves them. */
  isByHand: z.boolean().optional(),
  /** ISO 8601. */
  read: z.string()
});
export type Details = z.infer<typeof detailsSchema>;

export const decisionSchema = z.object({
  /** An item id, or two joined by a space. */
  id: z.string(),
  kind: z.enum(['set-aside', 'accepted']),
  at: z.string(),
  titles: z.object({ video: z.string(), post: z.string() }).optional()
});
export type Decision = z.infer<typeof decisionSchema>;

/** A post as it lies on the desk, before it is placed. */
export const draftSchema = z.object({
  /** The video. */
  id: z.string(),
  template: templateSchema,
  status: z.enum(['draft', 'public', 'private', 'dated']),
  /** Local date and time for `dated`, as a date field has it. */
  on: z.string(),
  placeId: z.string(),
  since: z.string(),
  changed: z.string()
});
export type Draft = z.infer<typeof draftSchema>;

/** What was done by hand on the desk of one video. It outlives the placing of its post. */
export const workSchema = z.object({
  /** The video. */
  id: z.string(),
  /** Chapters once touched; null takes the channel's, or else those proposed. */
  chapters: z.array(editedChapterSchema).nullable(),
  tidy: tidyOptionsSchema,
  pictures: z.array(givenPictureSchema),
  phrases: z.array(z.string()),
  /** Sentences that are kept or dropped whatever they say; absent in rows of before. */
  choices: z.array(sentenceChoiceSchema).optional(),
  /** The text as edited, and as it was made when editing began; both as the editor writes it. */
  edited: z.object({ base: z.string(), html: z.string() }).nullable()
});
export type Work = z.infer<typeof workSchema>;

/** A sentence as a voice said it, kept so that only what is changed is said anew. */
export const keptSpeechSchema = z.object({
  key: z.string(),
  seconds: z.number(),
  /** Samples a second. */
  rate: z.number(),
  words: z.array(z.number()),
  /** ISO 8601 day when it was last used. */
  used: z.string()
});
export type KeptSpeech = z.infer<typeof keptSpeechSchema>;

/** The sound of a kept sentence, apart because most questions do not need it. */
export const samplesSchema = z.object({
  key: z.string(),
  samples: z.custom<Int16Array<ArrayBuffer>>((value) => value instanceof Int16Array)
});
export type Samples = z.infer<typeof samplesSchema>;

/** A file of the user's own, or a picture of a post kept for drawing. */
export const mediaSchema = z.object({
  /** The address of a picture, or `own:` and a random name. */
  id: z.string(),
  /** As the user's machine calls it. */
  name: z.string(),
  blob: z.instanceof(Blob),
  /** Of sound and clips: seconds. */
  seconds: z.number().nullable(),
  /** Of sound that was decoded (16 bits, woven, 48,000 a second): its channels. */
  channels: z.number().nullable()
});
export type Media = z.infer<typeof mediaSchema>;

/** How the posts of a blog are laid out. */
export const placeTemplateSchema = z.object({ placeId: z.string(), template: templateSchema });
export type PlaceTemplate = z.infer<typeof placeTemplateSchema>;

/** Rows that were thrown away, for as long as that can be undone. */
export interface Trashed {
  id: string;
  /** ISO 8601. */
  at: string;
  rows: { table: string; row: object }[];
}
