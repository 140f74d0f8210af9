import { checkArchive } from '$lib/core/archive/check.ts';
import { readLines } from '$lib/core/archive/lines.ts';
import { tableFile } from '$lib/core/archive/manifest.ts';
import { ArchiveError, isUnusable, type ArchiveFinding } from '$lib/core/archive/problem.ts';
import { tellsOfNoRoom } from '$lib/core/model/room.ts';
import { Archive } from '$lib/core/archive/read.ts';
import {
  ARCHIVE_TABLE_NAMES,
  asRow,
  readRow,
  type ArchiveRow,
  type ArchiveTableName
} from '$lib/core/archive/tables.ts';
import type { ArchiveReport } from '$lib/core/archive/write.ts';
import { Database, TABLES_VERSION } from '../db.ts';
import { inBatches } from './batches.ts';

/** The sound part of an archive, as tables of this version. */
export interface ArchiveSource {
  archive: Archive;
  /** Files that are left out because something is wrong with them. */
  left: ReadonlySet<string>;
  /** Those that are sound. */
  rows(table: ArchiveTableName): AsyncIterable<ArchiveRow>;
  /** How many rows of an earlier version could not be brought up to this one, of those that were read. */
  unread(): number;
  /** Forgets what was written for reading. */
  close(): Promise<void>;
}

/** Rows that are written at a time. */
const BATCH = 200;

const isOfEarlierTables = ({ head }: Archive): boolean => head.schema < TABLES_VERSION;

/**
 * Opens an archive and reads all of it, to tell what is wrong with it.
 * @throws ArchiveError where it cannot be read at all
 */
export async function examineArchive(
  file: Blob,
  watched: { signal?: AbortSignal; report?: ArchiveReport } = {}
): Promise<{ archive: Archive; findings: ArchiveFinding[] }> {
  const archive = await Archive.open(file);
  if (archive.head.schema > TABLES_VERSION) throw new ArchiveError({ kind: 'later-version' });
  // Rows of an earlier version become rows of this one only when it is opened as a source.
  const readRows = !isOfEarlierTables(archive);
  return { archive, findings: await checkArchive(archive, { ...watched, readRows }) };
}

/**
 * Opens what is sound of an archive. One of an earlier version is brought up to this one first, as data of
 * that version in this browser would be.
 * @param findings of the archive
 */
export async function openSource(
  archive: Archive,
  findings: readonly ArchiveFinding[]
): Promise<ArchiveSource> {
  const left = new Set(findings.filter(isUnusable).map(({ file }) => file));
  const has = (table: ArchiveTableName) =>
    archive.has(tableFile(table)) && !left.has(tableFile(table));
  async function* lines(table: ArchiveTableName): AsyncGenerator<string> {
    if (has(table)) yield* readLines(archive.blocks(tableFile(table)));
  }
  async function* fromLines(table: ArchiveTableName): AsyncGenerator<ArchiveRow> {
    for await (const line of lines(table)) {
      const { row } = readRow(table, line);
      if (row) yield row;
    }
  }
  if (!isOfEarlierTables(archive))
    return { archive, left, rows: fromLines, unread: () => 0, close: () => Promise.resolve() };

  const staged = await stage(archive.head.schema, lines);
  return {
    archive,
    left,
    ...staged,
    rows: (table) => (table === 'files' ? fromLines('files') : staged.rows(table))
  };
}

const STAGE = 'swift-twin-import';

/** Fills a database of an earlier version and opens it as this one, so that its rows are brought up to date. */
async function stage(
  schema: number,
  lines: (table: ArchiveTableName) => AsyncIterable<string>
): Promise<Pick<ArchiveSource, 'rows' | 'unread' | 'close'>> {
  await new Database(STAGE).delete();
  const now = new Database(STAGE);
  try {
    const then = new Database(STAGE, schema);
    await then.open();
    const known = new Set(then.tables.map(({ name }) => name));
    for (const table of ARCHIVE_TABLE_NAMES.filter((name) => known.has(name)))
      for await (const batch of inBatches(lines(table), BATCH))
        await then.table(table).bulkPut(batch.map((line) => JSON.parse(line) as object));
    then.close();
    await now.open();
  } catch (error) {
    await now.delete();
    if (tellsOfNoRoom(`${(error as Error).name} ${(error as Error).message}`)) throw error;
    throw new ArchiveError({ kind: 'tables-damaged' });
  }
  let unread = 0;
  async function* rows(name: ArchiveTableName): AsyncGenerator<ArchiveRow> {
    const table = now.table(name);
    const keys = await table.toCollection().primaryKeys();
    for (let at = 0; at < keys.length; at += BATCH)
      for (const told of await table.bulkGet(keys.slice(at, at + BATCH))) {
        const { row } = asRow(name, told);
        if (row) yield row;
        else unread++;
      }
  }
  return { rows, unread: () => unread, close: () => now.delete() };
}

/** A file of an archive, as a part of it where it lies in it as it is. */
export async function fileOf(
  { archive, left }: Pick<ArchiveSource, 'archive' | 'left'>,
  name: string,
  type: string
): Promise<Blob | null> {
  if (!archive.has(name) || left.has(name)) return null;
  const part = await archive.part(name, type);
  if (part) return part;
  const blocks: Uint8Array<ArrayBuffer>[] = [];
  for await (const block of archive.blocks(name)) blocks.push(block as Uint8Array<ArrayBuffer>);
  return new Blob(blocks, { type });
}
