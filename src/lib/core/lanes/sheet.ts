import Papa from 'papaparse';
import { isAddress, type Sheet } from './sheetRows.ts';

/** What became of a row. */
export interface RowOutcome {
  status: string;
  title: string;
  link: string;
  reason: string;
  /** ISO 8601, or empty. */
  time: string;
}

export type SheetProblem = { kind: 'empty' } | { kind: 'too-many-rows'; most: number };

/** Rows of one sheet. */
export const MAX_ROWS = 5_000;
const MAX_COLUMNS = 200;
/** The columns that are added when a sheet is given back. */
const ADDED = ['status', 'title', 'link', 'reason', 'time'] as const;

/**
 * Reads a sheet (CSV, RFC 4180, or with other separators) or a list with one address or topic a line.
 * The column with most addresses names what is wanted, else the first one.
 */
export function readSheet(
  text: string
): { sheet: Sheet; problem: null } | { sheet: null; problem: SheetProblem } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    // One more than is taken, with its head: what lies behind it is not read.
    preview: MAX_ROWS + 2
  });
  const rows = data.map((row) =>
    row.slice(0, MAX_COLUMNS).map((cell) => asWritten(cell.trim()).trim())
  );
  if (rows.length === 0) return { sheet: null, problem: { kind: 'empty' } };
  const width = rows.reduce((most, row) => Math.max(most, row.length), 0);
  const counts = Array.from(
    { length: width },
    (_, i) => rows.filter((row) => isAddress(row[i] ?? '')).length
  );
  const key = Math.max(0, counts.indexOf(Math.max(...counts)));
  const [first = []] = rows;
  // A first row without an address, above rows that have some, names the columns.
  const hasHead = !isAddress(first[key] ?? '') && (counts[key]! > 0 || width > 1);
  const columns = Array.from({ length: width }, (_, i) =>
    hasHead ? (first[i] ?? '') : width === 1 ? 'address' : `column ${i + 1}`
  );
  const body = (hasHead ? rows.slice(1) : rows).map((row) =>
    Array.from({ length: width }, (_, i) => row[i] ?? '')
  );
  if (body.length === 0) return { sheet: null, problem: { kind: 'empty' } };
  if (body.length > MAX_ROWS)
    return { sheet: null, problem: { kind: 'too-many-rows', most: MAX_ROWS } };
  return { sheet: { columns, rows: body, key }, problem: null };
}

/** What spreadsheets take for the beginning of a formula, in half and full width. */
const FORMULA = /^\s*[=+\-@＝＋－＠].|^[\t\r\n]/s;
const NUMBER = /^[+-]?\d+(?:[.,]\d+)*$/;

/** What a spreadsheet would take for a formula is written so that it stays text. */
const asText = (cell: string): string =>
  FORMULA.test(cell) && !NUMBER.test(cell) ? `'${cell}` : cell;
/** A cell without the mark that keeps it text. */
const asWritten = (cell: string): string =>
  cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell;

/** The sheet as CSV (RFC 4180), its own columns kept, with what became of each row beside it. */
export function writeSheet(
  { columns, rows }: Sheet,
  outcomes: ReadonlyMap<number, RowOutcome>
): string {
  // A list that came back once has these columns already: they are written anew, not added again.
  const at = new Map(columns.map((name, i) => [name.trim().toLowerCase(), i]));
  const missing = ADDED.filter((name) => !at.has(name));
  const head = [...columns, ...missing];
  const body = rows.map((cells, row) => {
    const told = (name: (typeof ADDED)[number]) => outcomes.get(row)?.[name] ?? '';
    const own = [...cells];
    for (const name of ADDED) {
      const i = at.get(name);
      if (i !== undefined) own[i] = told(name) || (cells[i] ?? '');
    }
    return [...own, ...missing.map(told)];
  });
  const cells = [head, ...body].map((line) => line.map(asText));
  return `${Papa.unparse(cells, { newline: '\r\n' })}\r\n`;
}
