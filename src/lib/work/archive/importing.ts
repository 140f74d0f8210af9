import { proxy } from 'comlink';
import type { ImportChoice, ImportedCounts } from '$lib/data/archive/importArchive.ts';
import { KEYS_FILE } from '$lib/data/archive/parts.ts';
import { openSealedKeys } from '$lib/data/archive/sealedKeys.ts';
import { EVERYTHING } from '$lib/data/everything.ts';
import { note } from '$lib/data/journal.ts';
import { archiveWorker } from '$lib/workers/archive.ts';
import type { ArchiveProgress, ExaminedArchive, Faulty } from '$lib/workers/archiveApi.ts';
import { sendOrigins } from '../start.ts';
import { runTask, type Report } from '../tasks.svelte.ts';

/** Tells the deck how far the worker is, and the worker whether to go on. */
const toldBy = (signal: AbortSignal, report: Report, size: number) =>
  proxy(({ bytes, rows }: ArchiveProgress) => {
    if (rows !== undefined) report(`${rows} rows`);
    else if (bytes !== undefined)
      report(`${Math.round(bytes / 1e6)} MB`, size > 0 ? Math.min(1, bytes / size) : undefined);
    return !signal.aborted;
  });

/** Reads all of an archive, and says what importing it would do. */
export const examineArchive = (file: File): Promise<Faulty<ExaminedArchive>> =>
  runTask(`Checking “${file.name}”`, (signal, report) =>
    archiveWorker().examine(file, toldBy(signal, report, file.size))
  );

/**
 * The keys of an archive, ready to be kept.
 * @returns null where it is another passphrase
 */
export async function keysOfArchive(
  file: File,
  passphrase: string
): Promise<ImportChoice['keys'] | null> {
  return openSealedKeys(await archiveWorker().sealedKeys(file, KEYS_FILE), passphrase);
}

/** Imports an archive that was examined; what was here can be had back for a day. */
export const importArchive = (
  file: File,
  { findings }: Pick<ExaminedArchive, 'findings'>,
  choice: ImportChoice
): Promise<Faulty<ImportedCounts>> =>
  runTask(`Importing “${file.name}”`, async (signal, report) => {
    const told = toldBy(signal, report, 0);
    const outcome = await archiveWorker().import(file, findings, choice, told);
    if (!outcome.value) return outcome;
    const count = Object.values(outcome.value).reduce((sum, rows) => sum + rows, 0);
    await note({ what: 'brought-in', title: file.name, count, trash: EVERYTHING });
    await sendOrigins();
    return outcome;
  });
