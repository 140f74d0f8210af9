import Papa from 'papaparse';
import { canonicalAddress } from '../feeds/address.ts';
import { dayOfDate, type Day } from './day.ts';
import type { Counter } from './figures.ts';

/** A table of figures as a service exports it. */
export interface FiguresTable {
  columns: string[];
  rows: string[][];
}

export type FiguresTableProblem = { kind: 'empty' } | { kind: 'too-many-rows'; most: number };

export const MOST_ROWS = 200_000;
const MOST_COLUMNS = 100;

/** Reads CSV (RFC 4180, or with other separators). */
export function readFiguresTable(
  text: string
): { table: FiguresTable; problem: null } | { table: null; problem: FiguresTableProblem } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    preview: MOST_ROWS + 2
  });
  const [head, ...rows] = data;
  if (!head || rows.length === 0) return { table: null, problem: { kind: 'empty' } };
  if (rows.length > MOST_ROWS)
    return { table: null, problem: { kind: 'too-many-rows', most: MOST_ROWS } };
  const columns = head.slice(0, MOST_COLUMNS).map((name) => name.trim());
  return { table: { columns, rows: rows.map((row) => row.slice(0, MOST_COLUMNS)) }, problem: null };
}

/** What the columns of a table are. Each is the place of a column, or null where there is none. */
export interface ColumnChoice {
  /** Addresses or titles of items. */
  item: number;
  date: number | null;
  counters: Partial<Record<Counter, number>>;
  /** Whether numbers are what was gained on a day, and not totals so far. */
  isPerDay: boolean;
}

/** Names under which services tell of a counter, in parts of a heading. */
const NAMES: Partial<Record<Counter, RegExp>> = {
  views: /\bviews?\b|\bplays?\b|aufrufe/i,
  visits: /\bvisits?\b|\bsessions?\b|besuche/i,
  likes: /\blikes?\b|\bfavou?rites?\b/i,
  comments: /\bcomments?\b|\brepl(?:y|ies)\b|kommentare/i,
  shares: /\bshares?\b|\bboosts?\b/i,
  votes: /\bvotes?\b/i,
  watchTime: /watch\s?time|minutes|seconds/i
};

/** What columns seem to be, by their headings and what stands in them. */
export function guessColumns({ columns, rows }: FiguresTable): ColumnChoice {
  const sample = rows.slice(0, 50);
  const share = (i: number, is: (cell: string) => boolean) =>
    sample.filter((row) => is(row[i] ?? '')).length / Math.max(1, sample.length);
  const best = (is: (cell: string) => boolean, least: number) =>
    columns
      .map((_, i) => ({ i, share: share(i, is) }))
      .filter((one) => one.share >= least)
      .sort((a, b) => b.share - a.share)[0]?.i ?? null;
  const date = best((cell) => readDate(cell) !== null, 0.7);
  const address = best((cell) => canonicalAddress(cell.trim()) !== '', 0.5);
  const titled = columns.findIndex((name, i) => i !== date && /title|name|titel/i.test(name));
  const counters: ColumnChoice['counters'] = {};
  for (const [i, name] of columns.entries()) {
    if (i === date || i === address) continue;
    const counter = (Object.keys(NAMES) as Counter[]).find((one) => NAMES[one]?.test(name));
    if (counter && counters[counter] === undefined && share(i, (c) => readCount(c) !== null) > 0.5)
      counters[counter] = i;
  }
  const item = address ?? Math.max(0, titled);
  // The same item on several days: most likely what was gained on each.
  const items = new Set(sample.map((row) => row[item]));
  return { item, date, counters, isPerDay: date !== null && items.size < sample.length };
}

/** A date by itself or with a time, year first (ISO 8601) or day first with dots; null for anything else. */
export function readDate(cell: string): Day | null {
  const text = cell.trim();
  const iso = /^(\d{4})-(\d\d)-(\d\d)(?:$|[T ])/.exec(text);
  const dotted = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(text);
  const [year, month, day] = iso
    ? [iso[1], iso[2], iso[3]]
    : dotted
      ? [dotted[3], dotted[2]?.padStart(2, '0'), dotted[1]?.padStart(2, '0')]
      : [];
  const found = dayOfDate(`${year}-${month}-${day}`);
  return Number.isNaN(found) ? null : found;
}

/** A whole number, with or without separators of thousands; null for anything else. */
export function readCount(cell: string): number | null {
  const text = cell.trim();
  const isGrouped = /^\d{1,3}(?:[.,' \u00A0\u202F]\d{3})+$/.test(text);
  const digits = isGrouped ? text.replace(/\D/g, '') : text;
  if (!/^\d+(?:\.\d+)?$/.test(digits)) return null;
  const count = Math.round(Number(digits));
  return Number.isSafeInteger(count) ? count : null;
}

/** What a row tells of an item. */
export interface FiguresRow {
  item: string;
  day: Day;
  counts: Partial<Record<Counter, number>>;
}

/**
 * The rows of a table by the items that they tell of.
 * @param itemOf the id of an item by its address or title; undefined where there is none
 * @param today the day of rows without a date
 */
export function figuresOfTable(
  { rows }: FiguresTable,
  choice: ColumnChoice,
  itemOf: (cell: string) => string | undefined,
  today: Day
): { rows: FiguresRow[]; unknown: string[]; unreadable: number } {
  const read: FiguresRow[] = [];
  const unknown = new Set<string>();
  let unreadable = 0;
  const named = Object.entries(choice.counters) as [Counter, number][];
  for (const row of rows) {
    const cell = (row[choice.item] ?? '').trim();
    const item = itemOf(cell);
    const day = choice.date === null ? today : readDate(row[choice.date] ?? '');
    const counts = Object.fromEntries(
      named.flatMap(([counter, i]) => {
        const count = readCount(row[i] ?? '');
        return count === null ? [] : [[counter, count]];
      })
    );
    if (cell && !item) unknown.add(cell);
    else if (!item || day === null || Object.keys(counts).length === 0) unreadable++;
    else read.push({ item, day, counts });
  }
  return { rows: read, unknown: [...unknown], unreadable };
}
