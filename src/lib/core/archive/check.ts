import { createSHA256 } from 'hash-wasm';
import { readLines } from './lines.ts';
import { tableFile } from './manifest.ts';
import type { ArchiveFinding } from './problem.ts';
import type { Archive } from './read.ts';
import { ARCHIVE_TABLE_NAMES, readRow, type ArchiveTableName } from './tables.ts';
import type { ArchiveReport } from './write.ts';

/**
 * Reads all of an archive, and tells what is not as it was when it was made.
 * @param readRows whether rows are held against their schemas; those of an earlier version are not the same
 * @throws what `signal` was aborted with
 */
export async function checkArchive(
  archive: Archive,
  { signal, report, readRows = true }: CheckOptions = {}
): Promise<ArchiveFinding[]> {
  const tables = new Map<string, ArchiveTableName>(
    ARCHIVE_TABLE_NAMES.map((t) => [tableFile(t), t])
  );
  const hash = await createSHA256();
  const findings: ArchiveFinding[] = archive.unlisted().map((file) => ({ kind: 'unlisted', file }));
  let total = 0;
  for (const { name, bytes, sha256 } of archive.files()) {
    if (!archive.has(name)) {
      findings.push({ kind: 'missing', file: name });
      continue;
    }
    hash.init();
    let read = 0;
    const before = total;
    const blocks = tapped(archive.blocks(name, { isReused: true }), (block) => {
      signal?.throwIfAborted();
      hash.update(block);
      read += block.length;
      report?.(name, before + read);
    });
    const table = readRows ? tables.get(name) : undefined;
    let bad: ArchiveFinding[] = [];
    let isRead = false;
    try {
      if (table) bad = await badRows(table, blocks);
      else await readToEnd(blocks);
      isRead = true;
    } catch {
      signal?.throwIfAborted();
    }
    const isWhole = isRead && read === bytes && hash.digest() === sha256;
    findings.push(...(isWhole ? bad : [{ kind: 'damaged' as const, file: name }]));
    total += bytes;
  }
  return findings;
}

interface CheckOptions {
  signal?: AbortSignal;
  report?: ArchiveReport;
  readRows?: boolean;
}

async function* tapped<T>(all: AsyncIterable<T>, tell: (one: T) => void): AsyncGenerator<T> {
  for await (const one of all) {
    tell(one);
    yield one;
  }
}

async function readToEnd(blocks: AsyncIterator<unknown>): Promise<void> {
  while (!(await blocks.next()).done);
}

async function badRows(
  table: ArchiveTableName,
  blocks: AsyncIterable<Uint8Array>
): Promise<ArchiveFinding[]> {
  let line = 0;
  let found: Extract<ArchiveFinding, { kind: 'bad-rows' }> | null = null;
  for await (const text of readLines(blocks)) {
    line++;
    const { fault } = readRow(table, text);
    if (fault === null) continue;
    found ??= { kind: 'bad-rows', file: tableFile(table), rows: 0, line, detail: fault };
    found.rows++;
  }
  return found ? [found] : [];
}
