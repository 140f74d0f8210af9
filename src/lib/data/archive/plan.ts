import {
  ARCHIVE_TABLE_NAMES,
  type ArchiveRow,
  type ArchiveTableName
} from '$lib/core/archive/tables.ts';
import { db } from '../db.ts';
import { inBatches } from './batches.ts';
import { compareRows, isNewer, type ComparedRow } from './compare.ts';
import { KEYS_FILE } from './parts.ts';
import type { ArchiveSource } from './source.ts';

/** A row that is not the same here and in the archive. */
export interface ArchiveDifference extends Pick<ComparedRow, 'key' | 'here' | 'there'> {
  table: ArchiveTableName;
  /** What people know it by. */
  title: string;
  isNewer: boolean;
}

/** What importing an archive would do. */
export interface ArchivePlan {
  /** Rows of each table that has any. */
  tables: { table: ArchiveTableName; fresh: number; same: number; differing: number }[];
  /** The first of those that differ, and how many there are in all. */
  differences: ArchiveDifference[];
  differing: number;
  /** How many deliveries and lanes would go on by themselves. */
  running: number;
  /** Rows of an earlier version that could not be brought up to this one. */
  unread: number;
  /** Whether there are keys in it, encrypted. */
  hasKeys: boolean;
  /** Whether nothing was done in this browser that could differ. */
  isEmptyHere: boolean;
}

/** Rows that differ and can be looked at one by one. */
const MOST = 2_000;
const BATCH = 50;

/** Looks through an archive, and at what is here; nothing is changed. */
export async function planImport(
  source: ArchiveSource,
  { signal, report }: { signal?: AbortSignal; report?: (rows: number) => void } = {}
): Promise<ArchivePlan> {
  const plan: ArchivePlan = {
    tables: [],
    differences: [],
    differing: 0,
    running: 0,
    unread: 0,
    hasKeys: source.archive.has(KEYS_FILE) && !source.left.has(KEYS_FILE),
    isEmptyHere: (await db.places.count()) === 0 && (await db.items.count()) === 0
  };
  let rows = 0;
  for (const table of ARCHIVE_TABLE_NAMES) {
    const counts = { table, fresh: 0, same: 0, differing: 0 };
    for await (const batch of inBatches(source.rows(table), BATCH)) {
      signal?.throwIfAborted();
      for (const compared of await compareRows(table, batch, source)) {
        if (compared.standing === 'new') counts.fresh++;
        else if (compared.standing === 'same') counts.same++;
        else {
          counts.differing++;
          if (plan.differences.length < MOST)
            plan.differences.push(await differenceOf(table, compared));
        }
        if (compared.standing !== 'same' && goesOn(table, compared.row)) plan.running++;
      }
      rows += batch.length;
      report?.(rows);
    }
    plan.differing += counts.differing;
    if (counts.fresh + counts.same + counts.differing > 0) plan.tables.push(counts);
  }
  plan.unread = source.unread();
  return plan;
}

/** Whether a row is of something that this browser would take up and go on with. */
function goesOn(table: ArchiveTableName, row: ArchiveRow): boolean {
  if (table === 'lanes') return row.isOn === true;
  if (table === 'renders') return row.state === 'running';
  if (table === 'outbox') return /^(?:planned|waiting|sending)$/.test(String(row.state));
  return table === 'transfers' && /^(?:waiting|sending|at-work)$/.test(String(row.state));
}

async function differenceOf(
  table: ArchiveTableName,
  compared: ComparedRow
): Promise<ArchiveDifference> {
  const { key, here, there, row } = compared;
  const own = [row.title, row.name].find((t) => typeof t === 'string' && t !== '');
  const title = own ?? (await titleOfItems(key)) ?? key;
  return { table, key, here, there, title: String(title), isNewer: isNewer(compared) };
}

/** The titles of the items that a key is made of. */
async function titleOfItems(key: string): Promise<string | null> {
  const items = await db.items.bulkGet(key.split(' '));
  const titles = items.flatMap((item) => (item ? [item.title] : []));
  return titles.length > 0 ? [...new Set(titles)].join(' · ') : null;
}
