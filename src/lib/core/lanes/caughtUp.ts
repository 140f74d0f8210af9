import { planSlots, type Pace, type PaceHistory, type PaceSlot } from './pace.ts';

/**
 * What fell due while nobody led the lanes, and when each of it goes out now: at the same pace, so
 * that what was missed never goes out all at once.
 * @param planned how many items waited to go out
 * @param closed until when the lanes were led; milliseconds since 1970
 * @returns one moment for each that fell due; fewer where the pace has none within five years
 */
export function caughtUp(
  pace: Pace,
  history: PaceHistory,
  planned: number,
  closed: number,
  now: number
): PaceSlot[] {
  const due = planSlots(pace, history, closed, planned).filter((slot) => slot.at <= now).length;
  return planSlots(pace, history, now, due);
}
