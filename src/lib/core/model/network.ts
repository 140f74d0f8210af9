import { z } from 'zod';
import { updateLimitsSchema } from '../updates/placeLimits.ts';
import { allowanceSchema } from './allowance.ts';
import { problemSchema } from './place.ts';

/** A place for updates, as it is linked. It is written to, not read into the catalogue. */
export const networkSchema = z.object({
  id: z.string(),
  /** Address of its actor (ActivityStreams 2.0); what it is known by. */
  actor: z.string(),
  /** The page people see. */
  url: z.string(),
  title: z.string(),
  about: z.string(),
  outbox: z.string(),
  /** Where limits and counts of hashtags are told; empty where it has none. */
  limitsUrl: z.string(),
  tagCounts: z.string(),
  /** Where pictures and clips are sent first; empty where it takes addresses only. */
  uploadMedia: z.string().default(''),
  /** Where a key tells what it may do and until when; empty where it does not. */
  tokenEndpoint: z.string().default(''),
  /** Until when the key is good (ISO 8601), where that is told. */
  keyEnds: z.string().nullable().default(null),
  limits: updateLimitsSchema,
  allowance: allowanceSchema.nullable(),
  /** Nothing can be placed there by program: the user is sent a message and posts by hand. */
  isByHand: z.boolean().default(false),
  hasKey: z.boolean(),
  /** The user sends updates here unless told otherwise. */
  isUsual: z.boolean(),
  origins: z.array(z.string()),
  linked: z.string(),
  checked: z.string(),
  problem: problemSchema.nullable()
});
export type Network = z.infer<typeof networkSchema>;
