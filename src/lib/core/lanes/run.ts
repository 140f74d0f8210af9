import { z } from 'zod';
import { waitAfter, type Backoff } from '../delivery/retry.ts';
import { problemSchema } from '../model/place.ts';

/** One go of a lane. Times are milliseconds since 1970. */
export const laneRunSchema = z.object({
  id: z.string(),
  laneId: z.string(),
  at: z.number(),
  ended: z.number().nullable(),
  /** How many it looked at, left out, made, and could not make. */
  seen: z.number().int(),
  dropped: z.number().int(),
  made: z.number().int(),
  failed: z.number().int(),
  problem: problemSchema.nullable()
});
export type LaneRun = z.infer<typeof laneRunSchema>;

/** A place to which nothing is sent for a while, because it kept failing. */
export const pauseSchema = z.object({
  placeId: z.string(),
  until: z.number(),
  tries: z.number().int(),
  problem: problemSchema
});
export type Pause = z.infer<typeof pauseSchema>;

const BACKOFF: Backoff = { first: 10 * 60_000, max: 6 * 3_600_000 };

/** The pause after a place failed once more: longer each time, and as long as it asked for. */
export function longer(
  before: Pause | null,
  placeId: string,
  problem: Pause['problem'],
  now: number
): Pause {
  const tries = (before?.tries ?? 0) + 1;
  return {
    placeId,
    tries,
    problem,
    until: now + waitAfter(tries, BACKOFF, problem)
  };
}
