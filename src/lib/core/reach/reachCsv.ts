import Papa from 'papaparse';
import { gainsByDay, totalOn } from './curve.ts';
import { dateOfDay, dayOfDate, type Day } from './day.ts';
import type { Counter } from './figures.ts';
import { visitsCurve, type ReachRow } from './reachRow.ts';

/** What is told of an item beside its figures. */
export interface NamedRow {
  row: ReachRow;
  title: string;
  url: string;
  place: string;
  /** ISO 8601, or null. */
  published: string | null;
}

/** A cell that a spreadsheet would take for a formula is text. */
const asText = (cell: string): string => (/^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell);

/**
 * Figures day by day as CSV (RFC 4180): a line for each item, counter and day on which something came.
 * @param since the first day that is told
 * @param hasHead whether the names of the columns come first: a table may be written in parts
 */
export function reachCsv(
  rows: readonly NamedRow[],
  { since = -Infinity, hasHead = true }: { since?: Day; hasHead?: boolean } = {}
): string {
  const lines = rows.flatMap(({ row, title, url, place, published }) => {
    const visits = visitsCurve(row.visits);
    const curves = [
      ...Object.entries(row.counters),
      ...(visits ? [['visits', visits] as const] : [])
    ] as [Counter, ReachRow['counters']['views']][];
    const day = published ? dayOfDate(published.slice(0, 10)) : null;
    return curves.flatMap(([counter, curve]) => {
      if (!curve) return [];
      const gains = gainsByDay(curve, day);
      const days = new Set([...gains.keys(), ...curve.days]);
      return [...days]
        .filter((on) => on >= since)
        .sort((a, b) => a - b)
        .map((on) => [
          dateOfDay(on),
          row.kind,
          asText(title),
          url,
          asText(place),
          counter,
          gains.get(on) ?? 0,
          Math.round(totalOn(curve, on) ?? 0)
        ]);
    });
  });
  const fields = ['date', 'kind', 'title', 'address', 'place', 'counter', 'gained', 'total'];
  const options = { newline: '\r\n', header: hasHead };
  return lines.length > 0 || hasHead ? Papa.unparse({ fields, data: lines }, options) : '';
}
