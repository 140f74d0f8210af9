import { z } from 'zod';

/** What is left out of the words. All of it is recognised and counted in any case. */
export const tidyOptionsSchema = z.object({
  soundNotes: z.boolean(),
  speakers: z.boolean(),
  fillers: z.boolean(),
  stutters: z.boolean()
});
export type TidyOptions = z.infer<typeof tidyOptionsSchema>;

export const KEEP_ALL_SPEECH: TidyOptions = {
  soundNotes: true,
  speakers: true,
  fillers: false,
  stutters: false
};
export const DROP_NOISE: TidyOptions = { ...KEEP_ALL_SPEECH, fillers: true, stutters: true };
