/** How many rows a page is, for the keys that go by pages. */
const PAGE = 8;

/**
 * Where a key leads in a list.
 * @param key as keyboard events name it
 * @param at the current row, from 0
 * @param count of rows
 * @returns the row to go to, within the list; null for keys that do not lead through lists, and in
 *   an empty list
 */
export function rowForKey(key: string, at: number, count: number): number | null {
  const last = count - 1;
  const steps = new Map([
    ['ArrowDown', at + 1],
    ['ArrowUp', at - 1],
    ['PageDown', at + PAGE],
    ['PageUp', at - PAGE],
    ['Home', 0],
    ['End', last]
  ]);
  const to = steps.get(key);
  if (to === undefined || count === 0) return null;
  return Math.max(0, Math.min(to, last));
}
