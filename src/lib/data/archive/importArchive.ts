import Dexie from 'dexie';
import { blocksOf } from '$lib/core/zip/blocks.ts';
import {
  ARCHIVE_TABLE_NAMES,
  archiveTable,
  type ArchiveRow,
  type ArchiveTableName,
  type InFile
} from '$lib/core/archive/tables.ts';
import { readWav } from '$lib/core/audio/wav.ts';
import { mailboxSchema } from '$lib/core/model/mailbox.ts';
import { stopTrying, type OutboxEntry } from '$lib/core/delivery/outbox.ts';
import { listFiles, removeFiles, renameFile, writeWhole } from '$lib/video/files.ts';
import { db } from '../db.ts';
import { keepEverythingAside } from '../everything.ts';
import { saveKey, type SealedKey } from '../keys.ts';
import { MAILBOX_ID } from '../mailbox.ts';
import { recountDays } from '../reach.ts';
import { saveSetting } from '../settings.ts';
import { inBatches } from './batches.ts';
import { compareRows, isNewer, type ComparedRow } from './compare.ts';
import { isPortable, rowName } from './rows.ts';
import { fileOf, type ArchiveSource } from './source.ts';

/** How an archive is to be imported. */
export interface ImportChoice {
  /** `replace`: what is here goes, and can be had back for a day. `merge`: it stays, but for rows that are taken. */
  how: 'replace' | 'merge';
  /** Rows that differ and are to be as in the archive, or not, against what their time says: table and key, joined by a space. */
  taken: ReadonlyMap<string, boolean>;
  /** Whether lanes are switched off, and what was about to go out waits to be tried again. */
  holds: boolean;
  /** As this browser keeps them. */
  keys: readonly ({ placeId: string } & SealedKey)[];
}

/** Rows that were written, by table. */
export type ImportedCounts = Partial<Record<ArchiveTableName, number>>;

const ARRIVING = 'import-';
const BATCH = 100;
/** Milliseconds that the reading of one batch may take. */
const PATIENCE = 600_000;

/** Whoever waits is told how many rows were written. */
interface Watched {
  signal?: AbortSignal;
  report?: (rows: number) => void;
}

/**
 * Imports an archive: all of it in one transaction, or nothing. What was here is kept aside for a day.
 * @throws what `signal` was aborted with, or the browser's own error where there is no room left
 */
export async function importArchive(
  source: ArchiveSource,
  choice: ImportChoice,
  { signal, report }: Watched = {}
): Promise<ImportedCounts> {
  const arrived: string[] = [];
  try {
    const files = await bringFiles(source, choice, arrived, signal);
    await keepEverythingAside();
    const counts = await writeRows(source, choice, { signal, report });
    if (counts.reach) await recountDays();
    for (const [from, to] of files) await renameFile(from, to);
    return files.length > 0 ? { ...counts, files: files.length } : counts;
  } catch (error) {
    await removeFiles(arrived);
    throw error;
  }
}

/** Writes the files of an archive beside those that are here. @returns their names now, and those they get */
async function bringFiles(
  source: ArchiveSource,
  choice: ImportChoice,
  arrived: string[],
  signal?: AbortSignal
): Promise<[from: string, to: string][]> {
  await removeFiles(
    (await listFiles()).map(({ name }) => name).filter((n) => n.startsWith(ARRIVING))
  );
  const files: [string, string][] = [];
  for await (const row of source.rows('files')) {
    const [compared] = await compareRows('files', [row], source);
    if (!compared || !isTaken('files', compared, choice)) continue;
    const { file, type } = row.content as InFile;
    const content = await fileOf(source, file, type);
    if (!content) continue;
    const [from, to] = [`${ARRIVING}${arrived.length}`, String(row.name)];
    arrived.push(from, `${from}.partial`);
    await writeWhole(from, async (out) => {
      for await (const block of blocksOf(content.stream())) {
        signal?.throwIfAborted();
        await out.write(block as Uint8Array<ArrayBuffer>);
      }
    });
    files.push([from, to]);
  }
  return files;
}

function isTaken(table: ArchiveTableName, compared: ComparedRow, choice: ImportChoice): boolean {
  if (compared.standing !== 'differs') return compared.standing === 'new';
  if (choice.how === 'replace') return true;
  return choice.taken.get(rowName(table, compared.key)) ?? isNewer(compared);
}

/**
 * While the archive is read the transaction has nothing to do, and would end: `waitFor` keeps it open. All or
 * nothing is worth that.
 */
const waitFor = <T>(work: () => Promise<T>): Promise<T> =>
  Promise.resolve(Dexie.waitFor(Dexie.ignoreTransaction(work), PATIENCE));

function writeRows(
  source: ArchiveSource,
  choice: ImportChoice,
  { signal, report }: Watched
): Promise<ImportedCounts> {
  const now = Date.now();
  const counts: ImportedCounts = {};
  return Promise.resolve(
    db.transaction('rw', db.tables, async () => {
      const before = await whereKeysGo();
      if (choice.how === 'replace') await clearPortable();
      let written = 0;
      for (const table of ARCHIVE_TABLE_NAMES.filter((name) => name !== 'files')) {
        const batches = inBatches(source.rows(table), BATCH);
        for (;;) {
          const { value: batch, done } = await waitFor(() => batches.next());
          if (done) break;
          signal?.throwIfAborted();
          const portable = batch.filter((row) =>
            isPortable(table, String(row[archiveTable(table).key]))
          );
          const compared = await compareRows(table, portable, source);
          const taken = compared.filter((c) => isTaken(table, c, choice)).map(({ row }) => row);
          const rows = await waitFor(() => withFiles(table, taken, source));
          await db.table(table).bulkPut(choice.holds ? rows.map((r) => held(table, r, now)) : rows);
          if (rows.length > 0) counts[table] = (counts[table] ?? 0) + rows.length;
          report?.((written += batch.length));
        }
      }
      for (const { placeId, ...sealed } of choice.keys) await saveKey(placeId, sealed);
      await settleKeys(before, new Set(choice.keys.map(({ placeId }) => placeId)));
      await saveSetting('started', (await db.settings.get('started'))?.value ?? 'empty');
      return counts;
    })
  );
}

/** Clears what an archive would bring, and what is reckoned from it. Keys and what is of this browser stay. */
async function clearPortable(): Promise<void> {
  for (const table of ARCHIVE_TABLE_NAMES) {
    if (table === 'files') continue;
    const { keyPath } = db.table(table).schema.primKey;
    const keys = await db.table(table).toCollection().primaryKeys();
    const isLog = archiveTable(table).isLog === true;
    const going = keys.filter((key) => isLog || isPortable(table, String(key)));
    if (keyPath) await db.table(table).bulkDelete(going);
  }
  const reckoned = [db.twins, db.pauses, db.trash, db.reachDays, db.reachTotals];
  await Promise.all(reckoned.map((table) => table.clear()));
}

/** Rows with what lies in files of the archive. One whose file is not sound is left out. */
async function withFiles(
  table: ArchiveTableName,
  rows: readonly ArchiveRow[],
  source: ArchiveSource
): Promise<ArchiveRow[]> {
  if (table !== 'media' && table !== 'samples') return [...rows];
  const whole: ArchiveRow[] = [];
  for (const row of rows) {
    const { file, type } = (table === 'media' ? row.blob : row.samples) as InFile;
    const content = await fileOf(source, file, type);
    if (!content) continue;
    if (table === 'media') whole.push({ ...row, blob: content });
    else whole.push({ ...row, samples: await samplesOf(content) });
  }
  return whole;
}

async function samplesOf(wav: Blob): Promise<Int16Array<ArrayBuffer>> {
  const { samples } = readWav(new Uint8Array(await wav.arrayBuffer()));
  return Int16Array.from(samples, (s) => Math.round(s * 32768));
}

/** A row that does nothing by itself: another browser may still do it. */
function held(table: ArchiveTableName, row: ArchiveRow, now: number): ArchiveRow {
  if (table === 'lanes') return { ...row, isOn: false };
  if (table === 'renders' && row.state === 'running') return { ...row, state: 'stopped' };
  if (table === 'transfers' && /^(?:waiting|sending|at-work)$/.test(String(row.state)))
    return {
      ...row,
      state: 'failed',
      problem: { kind: 'stopped', url: '', detail: '', status: null, retryAfter: null }
    };
  if (table !== 'outbox') return row;
  const entry = row as unknown as OutboxEntry;
  if (entry.state === 'planned') return { ...row, state: 'in-review' };
  const waiting: OutboxEntry = entry.state === 'sending' ? { ...entry, state: 'waiting' } : entry;
  return stopTrying(waiting, now) as unknown as ArchiveRow;
}

/** To which addresses the key of each place would be sent. */
async function whereKeysGo(): Promise<Map<string, string>> {
  const goes = new Map<string, string>();
  await db.places.each(({ id, micropub, tokenEndpoint }) =>
    goes.set(id, `${micropub} ${tokenEndpoint}`)
  );
  await db.networks.each(({ id, outbox, uploadMedia, tokenEndpoint }) =>
    goes.set(id, `${outbox} ${uploadMedia} ${tokenEndpoint}`)
  );
  const mailbox = mailboxSchema.safeParse((await db.settings.get(MAILBOX_ID))?.value).data;
  if (mailbox) goes.set(MAILBOX_ID, mailbox.messages);
  return goes;
}

/**
 * Forgets the keys of this browser whose places are gone, or would be sent elsewhere now: an archive of somebody
 * must not learn them. Places whose keys are not here are to be read only.
 * @param before where keys went before the import
 * @param came keys that came with the archive
 */
async function settleKeys(
  before: ReadonlyMap<string, string>,
  came: ReadonlySet<string>
): Promise<void> {
  const now = await whereKeysGo();
  const keys = await db.keys.toCollection().primaryKeys();
  const isGood = (id: string) => now.has(id) && (came.has(id) || before.get(id) === now.get(id));
  await db.keys.bulkDelete(keys.filter((id) => !isGood(id)));
  const good = new Set(keys.filter(isGood));
  const without = { hasKey: false, keyEnds: null, problem: null };
  await db.places
    .filter(({ id, hasKey }) => hasKey && !good.has(id))
    .modify({ ...without, allowance: null, rights: ['read'] });
  // What is posted by hand has no key, and needs none.
  await db.networks
    .filter(({ id, hasKey, isByHand }) => hasKey && !isByHand && !good.has(id))
    .modify(without);
}
