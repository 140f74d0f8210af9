/** How much a source gave in the past. */
export interface Rate {
  /** Items that pass now. */
  count: number;
  /** In the past twelve weeks, newest week last. */
  weeks: number[];
  /** Days between two, by what was given in these weeks; null where nothing was. */
  everyDays: number | null;
}

const WEEK = 7 * 86_400_000;
const WEEKS = 12;

/**
 * @param times when each item that passes was published; milliseconds since 1970
 */
export function rateOf(times: readonly number[], now: number): Rate {
  const weeks = Array.from({ length: WEEKS }, () => 0);
  for (const time of times) {
    const ago = Math.floor((now - time) / WEEK);
    if (ago >= 0 && ago < WEEKS) weeks[WEEKS - 1 - ago]! += 1;
  }
  const recent = weeks.reduce((sum, n) => sum + n, 0);
  return { count: times.length, weeks, everyDays: recent > 0 ? (WEEKS * 7) / recent : null };
}

/** Whether a source gives fewer than a pace could place, so that days pass with nothing. */
export const isTooNarrow = ({ everyDays }: Rate, perDay: number | null): boolean =>
  perDay !== null && (everyDays === null || everyDays * perDay > 1.5);
