import { z } from 'zod';

/** A time at which no lane publishes, in milliseconds since 1970; `to` is the first moment after it. */
export const busySchema = z
  .object({ title: z.string(), from: z.number(), to: z.number() })
  .refine(({ from, to }) => from < to, 'It ends before it begins.');
export type Busy = z.infer<typeof busySchema>;
