import { z } from 'zod';

/** A notice on the board. `at` is milliseconds since 1970. */
export const noticeSchema = z.object({ id: z.string(), text: z.string(), at: z.number() });
