/** What a place takes in a calendar month (UTC), and how much of it is left. */
export interface MonthAllowance {
  most: number;
  per: 'month';
  left: number;
}

/** @param created when each thing was made there, whether it still stands or not; milliseconds */
export function monthAllowance(
  created: readonly number[],
  most: number,
  now: number
): MonthAllowance {
  const date = new Date(now);
  const month = Date.UTC(date.getUTCFullYear(), date.getUTCMonth());
  const used = created.filter((time) => time >= month && time <= now).length;
  return { most, per: 'month', left: Math.max(0, most - used) };
}
