import { reachCsv, type NamedRow } from '$lib/core/reach/reachCsv.ts';
import type { ReachRow } from '$lib/core/reach/reachRow.ts';
import { itemsByIds } from '$lib/data/items.ts';
import { getEntries } from '$lib/data/outbox.ts';
import { placeTitles } from '$lib/data/places.ts';
import { allReach, getReach } from '$lib/data/reach.ts';
import { download } from '../download.ts';
import { titlesOf } from './names.ts';

/** Rows with what people call them. */
async function named(rows: readonly ReachRow[]): Promise<NamedRow[]> {
  const ids = rows.map(({ id }) => id);
  const [items, titles, entries, places] = await Promise.all([
    itemsByIds(ids),
    titlesOf(ids),
    getEntries(ids),
    placeTitles()
  ]);
  const made = new Map(entries.map((entry) => [entry.key, entry]));
  return rows.map((row) => ({
    row,
    title: titles.get(row.id) ?? '',
    url: items.get(row.id)?.url ?? made.get(row.id)?.url ?? '',
    place: places.get(row.placeId) ?? '',
    published: items.get(row.id)?.published ?? null
  }));
}

/** Saves figures as CSV: of some items, or of all. @returns how many items */
export async function exportReachCsv(name: string, ids?: readonly string[]): Promise<number> {
  const rows = ids ? (await getReach(ids)).filter((row) => row !== undefined) : await allReach();
  download(`${name}.csv`, 'text/csv', reachCsv(await named(rows)));
  return rows.length;
}
