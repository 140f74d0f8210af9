import equal from 'fast-deep-equal';
import {
  archiveTable,
  changedAt,
  type ArchiveRow,
  type ArchiveTableName,
  type InFile
} from '$lib/core/archive/tables.ts';
import { WAV_HEAD } from '$lib/core/audio/wav.ts';
import type { Media, Samples } from '$lib/core/model/rows.ts';
import { readFile } from '$lib/video/files.ts';
import { db } from '../db.ts';
import type { ArchiveSource } from './source.ts';

/** A row of an archive, held against what is here. */
export interface ComparedRow {
  row: ArchiveRow;
  /** Its key in the table, or what it says where it has none. */
  key: string;
  standing: 'new' | 'same' | 'differs';
  /** When each was last changed, in milliseconds since 1970; null where it does not say. */
  here: number | null;
  there: number | null;
}

/** Holds some rows of a table against those that are here. */
export async function compareRows(
  table: ArchiveTableName,
  rows: readonly ArchiveRow[],
  source: Pick<ArchiveSource, 'archive'>
): Promise<ComparedRow[]> {
  if (archiveTable(table).isLog) return compareLines(table, rows);
  const { key } = archiveTable(table);
  const keys = rows.map((row) => String(row[key]));
  const known = table === 'files' ? await filesHere(keys) : await db.table(table).bulkGet(keys);
  const bytes = bytesOf(source);
  return rows.map((row, i) => {
    const here = known[i] as ArchiveRow | undefined;
    const isSame =
      here &&
      equal(told(table, plainHere(table, here)), told(table, plainThere(table, row, bytes)));
    return {
      row,
      key: keys[i] ?? '',
      standing: !here ? 'new' : isSame ? 'same' : 'differs',
      here: here ? changedAt(table, here) : null,
      there: changedAt(table, row)
    };
  });
}

/** Fields that only say when somebody looked, and not that anything changed. */
const LOOKED: Partial<Record<ArchiveTableName, string>> = {
  details: 'read',
  playlists: 'read',
  speech: 'used'
};

/** What a row tells, whenever it was looked at. */
function told(table: ArchiveTableName, plain: unknown): unknown {
  const looked = LOOKED[table];
  return looked ? { ...(plain as ArchiveRow), [looked]: '' } : plain;
}

/** Whether the row of the archive is the one to take, unless the user says otherwise. */
export const isNewer = ({ standing, here, there }: ComparedRow): boolean =>
  standing === 'new' || (standing === 'differs' && here !== null && there !== null && there > here);

async function compareLines(
  table: ArchiveTableName,
  rows: readonly ArchiveRow[]
): Promise<ComparedRow[]> {
  const { key } = archiveTable(table);
  const about = [...new Set(rows.map((row) => String(row[key])))];
  const known = (await db.table(table).where(key).anyOf(about).toArray()) as ArchiveRow[];
  const said = new Set(known.map((row) => JSON.stringify(plainHere(table, row))));
  return rows.map((row) => {
    const text = JSON.stringify(row);
    return { row, key: text, standing: said.has(text) ? 'same' : 'new', here: null, there: null };
  });
}

const filesHere = (names: readonly string[]): Promise<(ArchiveRow | undefined)[]> =>
  Promise.all(
    names.map(async (name) => {
      const file = await readFile(name);
      return file ? { name, bytes: file.size } : undefined;
    })
  );

const bytesOf =
  ({ archive }: Pick<ArchiveSource, 'archive'>) =>
  (name: string): number =>
    archive.bytesOf(name) ?? 0;

/** A row that is here as it would come out of an archive; files by their size. */
function plainHere(table: ArchiveTableName, row: ArchiveRow): unknown {
  if (table === 'media') {
    const { blob, ...kept } = row as unknown as Media;
    return { ...kept, blob: { bytes: blob.size, type: blob.type } };
  }
  if (table === 'samples') {
    const { key, samples } = row as unknown as Samples;
    return { key, bytes: WAV_HEAD + samples.byteLength };
  }
  if (table === 'files') return row;
  // What has no value does not come out at all; what came later has its usual value.
  const plain: unknown = JSON.parse(JSON.stringify(row));
  return archiveTable(table).schema.safeParse(plain).data ?? plain;
}

function plainThere(
  table: ArchiveTableName,
  row: ArchiveRow,
  bytes: (name: string) => number
): unknown {
  if (table === 'media') {
    const { file, type } = row.blob as InFile;
    return { ...row, blob: { bytes: bytes(file), type } };
  }
  if (table === 'samples') return { key: row.key, bytes: bytes((row.samples as InFile).file) };
  if (table === 'files') return { name: row.name, bytes: bytes((row.content as InFile).file) };
  return row;
}
