import type { Day } from '$lib/core/reach/day.ts';
import { reachCsv, type NamedRow } from '$lib/core/reach/reachCsv.ts';
import type { ReachRow } from '$lib/core/reach/reachRow.ts';
import { itemsByIds } from '$lib/data/items.ts';
import { getEntries } from '$lib/data/outbox.ts';
import { placeTitles } from '$lib/data/places.ts';
import { getReach, reachIds } from '$lib/data/reach.ts';
import { downloadBlob } from '../download.ts';
import { runTask } from '../tasks.svelte.ts';
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

/** Rows that are written at a time. */
const BATCH = 200;

/**
 * Saves figures as CSV, from a day on.
 * @param ids of some items; of all where none are given
 * @returns how many items
 */
export function exportReachCsv(name: string, since: Day, ids?: readonly string[]): Promise<number> {
  return runTask('Exporting figures', async (signal, report) => {
    const all = ids ?? (await reachIds());
    const parts: string[] = [];
    let count = 0;
    for (let from = 0; from < all.length; from += BATCH) {
      signal.throwIfAborted();
      const rows = (await getReach(all.slice(from, from + BATCH))).filter((r) => r !== undefined);
      count += rows.length;
      parts.push(reachCsv(await named(rows), { since, hasHead: from === 0 }));
      report(`${count} of ${all.length}`, count / all.length);
    }
    const text = parts.filter(Boolean).join('\r\n');
    downloadBlob(`${name}.csv`, new Blob([text], { type: 'text/csv' }));
    return count;
  });
}
