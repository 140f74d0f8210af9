import {
  nearestAllowed,
  paceSchema,
  whyNotAt,
  type Pace,
  type PaceHistory,
  type PaceReason
} from '../lanes/pace.ts';

/** What is in the way of a time: it has passed, or the pace of its lane or the allowance of its place. */
export interface InTheWay {
  reason: PaceReason | 'past';
  /** The nearest time at which nothing is, in milliseconds since 1970; null where there is none. */
  nearest: number | null;
}

/** Milliseconds: what is to go out within this time cannot be told from what has passed. */
const AT_ONCE = 60_000;

/**
 * What is in the way of moving something to a time, or null.
 * @param history what else goes out, by when, without what is moved
 * @param reserve milliseconds that a call may take
 */
export function checkMove(
  pace: Pace,
  history: PaceHistory,
  at: number,
  now: number,
  reserve = 0
): InTheWay | null {
  const earliest = now + AT_ONCE;
  const reason = at < earliest ? 'past' : whyNotAt(pace, history, at, reserve);
  if (!reason) return null;
  return { reason, nearest: nearestAllowed(pace, history, at, earliest, reserve) };
}

/** The pace of what no lane publishes: only the allowances of its place count. */
export const anyTime = (zone: string): Pace =>
  paceSchema.parse({ perRun: null, perDay: null, gap: 0, hours: { from: 0, to: 24 }, zone });
