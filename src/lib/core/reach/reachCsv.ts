import Papa from 'papaparse';
import { gainsByDay, totalOn } from './curve.ts';
import { dateOfDay, dayOfDate } from './day.ts';
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

/** Figures day by day as CSV (RFC 4180): a line for each item, counter and day on which something came. */
export function reachCsv(rows: readonly NamedRow[]): string {
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
  return Papa.unparse({ fields, data: lines }, { newline: '\r\n' });
}
