import { z } from 'zod';

/** A picture for the article; `at` is the second it shows, where that is known. */
export const givenPictureSchema = z.object({
  url: z.string(),
  alt: z.string(),
  at: z.number().optional()
});
export type GivenPicture = z.infer<typeof givenPictureSchema>;
