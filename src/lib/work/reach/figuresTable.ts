import { canonicalAddress } from '$lib/core/feeds/address.ts';
import {
  figuresOfTable,
  type ColumnChoice,
  type FiguresTable
} from '$lib/core/reach/csvFigures.ts';
import { dayOf } from '$lib/core/reach/day.ts';
import type { Item } from '$lib/core/model/item.ts';
import { allItems } from '$lib/data/items.ts';
import { note } from '$lib/data/journal.ts';
import { addTableFigures } from '$lib/data/reach.ts';
import { localZone } from '$lib/localZone.ts';

export interface TableImport {
  rows: number;
  items: number;
  /** What names no item here. */
  unknown: string[];
  unreadable: number;
  /** Numbers of days that were known better already. */
  known: number;
  undo: () => Promise<void>;
}

/** Adds the figures of a table, by the columns that were chosen. */
export async function importTable(
  table: FiguresTable,
  choice: ColumnChoice,
  name: string
): Promise<TableImport> {
  const items = await allItems();
  const find = finderOf(items);
  const today = dayOf(Date.now(), localZone());
  const { rows, unknown, unreadable } = figuresOfTable(table, choice, (c) => find(c)?.id, today);
  const byId = new Map(items.map((item) => [item.id, item]));
  const { known, undo } = await addTableFigures(rows, choice.isPerDay, (id) => byId.get(id));
  await note({ what: 'figures-imported', title: name, count: rows.length });
  const counted = new Set(rows.map(({ item }) => item)).size;
  return { rows: rows.length, items: counted, unknown, unreadable, known, undo };
}

/** Finds items by address, by what their place calls them, or by a title that only one of them has. */
export function finderOf(items: readonly Item[]): (cell: string) => Item | undefined {
  const byAddress = new Map<string, Item>();
  const byTitle = new Map<string, Item | null>();
  for (const item of items) {
    for (const name of [canonicalAddress(item.url), item.nativeId])
      if (name) byAddress.set(name, item);
    const title = item.title.trim().toLowerCase();
    byTitle.set(title, byTitle.has(title) ? null : item);
  }
  return (cell) =>
    byAddress.get(canonicalAddress(cell) || cell) ?? byTitle.get(cell.toLowerCase()) ?? undefined;
}
