import { z } from 'zod';

/** What a place says may still be placed there. */
export const allowanceSchema = z.object({
  most: z.number().int().nonnegative(),
  per: z.enum(['day', 'week', 'month']),
  left: z.number().int().nonnegative()
});
