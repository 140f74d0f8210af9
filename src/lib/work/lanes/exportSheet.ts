import type { Lane } from '$lib/core/lanes/lane.ts';
import type { LaneRecord } from '$lib/core/lanes/record.ts';
import { writeSheet, type RowOutcome } from '$lib/core/lanes/sheet.ts';
import { rowOf } from '$lib/core/lanes/sheetRows.ts';
import { slugOf } from '$lib/core/article/template/slug.ts';
import { itemsOf } from '$lib/data/items.ts';
import { recordsOf } from '$lib/data/lanes.ts';
import { getEntries } from '$lib/data/outbox.ts';
import { downloadBlob } from '../download.ts';

/** How records are told in words. */
interface Telling {
  state(state: LaneRecord['state']): string;
  reason(record: LaneRecord): string;
}

/** Gives the list of a lane back as CSV, with what became of each of its rows. */
export async function exportSheet(lane: Lane, telling: Telling): Promise<void> {
  const { sheet } = lane.source;
  if (!sheet) return;
  const records = new Map((await recordsOf(lane.id)).map((r) => [r.itemId, r]));
  const outcomes = new Map<number, RowOutcome>();
  for (const item of await itemsOf(lane.source.places)) {
    const row = rowOf(sheet, item);
    const record = records.get(item.id);
    if (row === null || !record || outcomes.get(row)?.link) continue;
    const entries = await getEntries(record.keys);
    const placed = entries.filter((e) => e.state === 'published');
    outcomes.set(row, {
      status: telling.state(record.state),
      title: item.title,
      link: placed.map((e) => e.answer || e.url).join(' '),
      reason: telling.reason(record),
      time: new Date(record.changed).toISOString()
    });
  }
  for (const row of sheet.rows.keys())
    if (!outcomes.has(row))
      outcomes.set(row, {
        status: 'Not found',
        title: '',
        link: '',
        time: '',
        reason: 'No source of the lane has it, or the lane has not run yet.'
      });
  const csv = writeSheet(sheet, outcomes);
  downloadBlob(`${slugOf(lane.name) || 'lane'}.csv`, new Blob([csv], { type: 'text/csv' }));
}
