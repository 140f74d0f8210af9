import { z } from 'zod';

export const pictureSchema = z.object({
  url: z.string(),
  /** Pixels; null where the place does not say. */
  width: z.number().nullable(),
  height: z.number().nullable()
});
export type Picture = z.infer<typeof pictureSchema>;

export const visibilitySchema = z.enum(['public', 'unlisted', 'private', 'scheduled', 'draft']);
export type Visibility = z.infer<typeof visibilitySchema>;

/** One video, post or update as it stands at a place. Its HTML is kept apart, as its body. */
export const itemSchema = z.object({
  id: z.string(),
  placeId: z.string(),
  kind: z.enum(['video', 'post', 'update']),
  /** What the place itself calls it: a feed's id or guid, else its address. */
  nativeId: z.string(),
  url: z.string(),
  title: z.string(),
  /** ISO 8601, or null where the place does not say. */
  published: z.string().nullable(),
  updated: z.string().nullable(),
  visibility: visibilitySchema,
  author: z.string(),
  /** BCP 47, or empty. */
  language: z.string(),
  /** An address or a few words, or empty. */
  licence: z.string(),
  /** Seconds, or null. */
  duration: z.number().nullable(),
  /** Plain text. */
  summary: z.string(),
  /** The same for the same text of its body, whatever the markup; absent in rows of before. */
  textHash: z.string().optional(),
  pictures: z.array(pictureSchema),
  embedUrl: z.string(),
  contentUrl: z.string(),
  captions: z.array(z.object({ url: z.string(), language: z.string() })),
  tags: z.array(z.string()),
  /** Addresses that its body frames, and those that it links to. */
  embeds: z.array(z.string()),
  links: z.array(z.string()),
  /** Video files that its body plays, with the address of their captions or nothing. */
  films: z.array(z.object({ url: z.string(), captions: z.string() })).optional(),
  /** The key of what it was made from, when it was made by this application. */
  origin: z.string().nullable(),
  /** Address of the post that a video says it was made from. */
  madeFrom: z.string().optional(),
  /** How often it was seen, where the place counts. */
  views: z.number().int().nonnegative().optional(),
  /** How many marked it as one they like. */
  likes: z.number().int().nonnegative().optional(),
  /** How many rated it, and their average from 0 to 1. */
  rating: z
    .object({ average: z.number().min(0).max(1), count: z.number().int().nonnegative() })
    .optional(),
  /** The feed of what people wrote under it, and how many they are; null where that is not told. */
  replies: z
    .object({ url: z.string(), count: z.number().int().nonnegative().nullable() })
    .optional()
});
export type Item = z.infer<typeof itemSchema>;

/** The largest of several pictures; one of unknown size only where no size is known. */
export function largestPicture(pictures: readonly Picture[]): Picture | null {
  const area = (p: Picture) => (p.width ?? 0) * (p.height ?? 0);
  return pictures.reduce<Picture | null>(
    (best, p) => (best === null || area(p) > area(best) ? p : best),
    null
  );
}

/** The smallest picture that is at least so many pixels wide, else the largest. */
export function pictureFor(pictures: readonly Picture[], width: number): Picture | null {
  const enough = pictures
    .filter((p) => (p.width ?? 0) >= width)
    .sort((a, b) => (a.width ?? 0) - (b.width ?? 0));
  return enough[0] ?? largestPicture(pictures);
}
