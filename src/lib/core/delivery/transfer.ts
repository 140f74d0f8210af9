import { z } from 'zod';
import { problemSchema, type Problem } from '../model/place.ts';
import { isPassing, waitAfter, type Backoff } from './retry.ts';

/**
 * The file of a video on its way to a channel, after what is said of it was placed. Times are
 * milliseconds since 1970.
 */
export const transferSchema = z.object({
  /** The key of its outbox entry. */
  key: z.string(),
  placeId: z.string(),
  /** The post it was made from. */
  itemId: z.string(),
  title: z.string(),
  /** Name of the file in the browser's own file system, its size and type. */
  file: z.string(),
  bytes: z.number(),
  type: z.string(),
  /** Where the channel takes the file; empty before it has said so. */
  uploadUrl: z.string(),
  sent: z.number(),
  /** A picture kept among the media that goes with it, or empty; emptied when it is sent. */
  thumbnail: z.string(),
  /** Whether the post gets the video embedded once it can be watched. */
  embeds: z.boolean(),
  state: z.enum(['waiting', 'sending', 'at-work', 'ready', 'failed']),
  problem: problemSchema.nullable(),
  attempts: z.number().int(),
  nextTry: z.number(),
  updated: z.number()
});
export type Transfer = z.infer<typeof transferSchema>;

const BACKOFF: Backoff = { first: 2_000, max: 300_000 };
const MAX_ATTEMPTS = 12;

/** The transfer after something went wrong: it waits a while, or is given up. What was sent stays sent. */
export function afterTrouble(transfer: Transfer, problem: Problem, now: number): Transfer {
  if (problem.kind === 'stopped') return { ...transfer, state: 'failed', problem, updated: now };
  const attempts = transfer.attempts + 1;
  const isOver = !isPassing(problem.kind) || attempts >= MAX_ATTEMPTS;
  const wait = waitAfter(attempts, BACKOFF, problem);
  const state = isOver ? 'failed' : transfer.state === 'at-work' ? 'at-work' : 'waiting';
  return { ...transfer, attempts, problem, state, nextTry: now + wait, updated: now };
}

/** Tries again at once, from where it was. */
export const resumeTransfer = (transfer: Transfer, now: number): Transfer => ({
  ...transfer,
  state: transfer.state === 'failed' ? 'waiting' : transfer.state,
  problem: null,
  attempts: 0,
  nextTry: now,
  updated: now
});
