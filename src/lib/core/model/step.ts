import { z } from 'zod';

/** One call of a place: what was asked of it, and what it answered. Keys stand in neither. */
export const stepSchema = z.object({
  id: z.number().int().optional(),
  /** Of the outbox entry. */
  key: z.string(),
  /** ISO 8601. */
  at: z.string(),
  did: z.enum(['find', 'prepare', 'publish', 'update', 'remove']),
  sent: z.string(),
  answered: z.string()
});
export type Step = z.infer<typeof stepSchema>;
