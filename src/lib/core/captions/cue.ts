import { z } from 'zod';

/** Times are seconds. */
export const cueSchema = z.object({ start: z.number(), end: z.number(), text: z.string() });
export type Cue = z.infer<typeof cueSchema>;
