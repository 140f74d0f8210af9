import { z } from 'zod';
import { canonicalAddress } from '../feeds/address.ts';
import { hasWords } from './search.ts';

/** A list of addresses or topics, as it was given, with all its columns. */
export const sheetSchema = z.object({
  columns: z.array(z.string()),
  rows: z.array(z.array(z.string())),
  /** The column that names what is wanted. */
  key: z.number().int().nonnegative()
});
export type Sheet = z.infer<typeof sheetSchema>;

export const isAddress = (cell: string): boolean => /^https?:\/\/\S+$/i.test(cell.trim());

interface Index {
  byAddress: ReadonlyMap<string, number>;
  topics: readonly { words: string; row: number }[];
}

const indexes = new WeakMap<Sheet, Index>();

function indexOf(sheet: Sheet): Index {
  const known = indexes.get(sheet);
  if (known) return known;
  const byAddress = new Map<string, number>();
  const topics: { words: string; row: number }[] = [];
  for (const [row, cells] of sheet.rows.entries()) {
    const cell = cells[sheet.key] ?? '';
    if (!isAddress(cell)) topics.push({ words: cell, row });
    else if (!byAddress.has(canonicalAddress(cell))) byAddress.set(canonicalAddress(cell), row);
  }
  const index = { byAddress, topics };
  indexes.set(sheet, index);
  return index;
}

/** The row that names an item, by its address or by a topic that stands in it; null where none does. */
export function rowOf(
  sheet: Sheet,
  item: { url: string; title: string; summary: string }
): number | null {
  const { byAddress, topics } = indexOf(sheet);
  const row = item.url ? byAddress.get(canonicalAddress(item.url)) : undefined;
  if (row !== undefined) return row;
  return (
    topics.find(({ words }) => hasWords(`${item.title} \n ${item.summary}`, words))?.row ?? null
  );
}
