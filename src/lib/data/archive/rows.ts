import type { Table } from 'dexie';
import type { ArchiveRow, ArchiveTableName } from '$lib/core/archive/tables.ts';
import { db } from '../db.ts';
import { TAKE } from '../speech.ts';

/** Rows that are read at a time; a sentence of sound takes as much as a hundred others. */
const BATCH = 200;
const BATCH_OF_SOUND = 8;
/** Settings that say something of this browser only. */
const OF_THIS_BROWSER = [
  'keyOfKeys',
  'secret',
  'toRead',
  'started',
  'lanes/led',
  'lanes/missed',
  'archive/last',
  'archive/folder'
];

/** Whether a row of a table goes into archives, by its key. */
export const isPortable = (table: ArchiveTableName, key: string): boolean => {
  if (table === 'settings') return !OF_THIS_BROWSER.includes(key);
  // What a voice says can be made again; what the user read cannot.
  return (table !== 'speech' && table !== 'samples') || key.startsWith(TAKE);
};

/** The name of a choice about one row. */
export const rowName = (table: ArchiveTableName, key: string): string => `${table} ${key}`;

/** The rows of a table that go into archives, in the order of their keys, a few in memory at a time. */
export async function* portableRows(
  name: Exclude<ArchiveTableName, 'files'>
): AsyncGenerator<ArchiveRow> {
  const table: Table<ArchiveRow, string | number> = db.table(name);
  const { primKey } = table.schema;
  const batch = name === 'samples' ? BATCH_OF_SOUND : BATCH;
  let last: string | number | null = null;
  for (;;) {
    const from = last === null ? table.orderBy(':id') : table.where(':id').above(last);
    const rows: ArchiveRow[] = await from.limit(batch).toArray();
    for (const row of rows) if (isPortable(name, String(row[primKey.name]))) yield row;
    if (rows.length < batch) return;
    last = rows.at(-1)?.[primKey.name] as string | number;
  }
}
