import { z } from 'zod';

/** A word of the user's own and how it is to be said, written as one would for a reader. */
export const pronunciationSchema = z.object({ written: z.string(), said: z.string() });
export type Pronunciation = z.infer<typeof pronunciationSchema>;
