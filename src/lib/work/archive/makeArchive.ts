import { proxy } from 'comlink';
import type { ArchiveChoice } from '$lib/data/archive/parts.ts';
import { saveLastArchive } from '$lib/data/archive/reminder.ts';
import { sealKeys } from '$lib/data/archive/sealedKeys.ts';
import { note } from '$lib/data/journal.ts';
import { readFile, removeFiles } from '$lib/video/files.ts';
import { archiveWorker } from '$lib/workers/archive.ts';
import { downloadBlob } from '../download.ts';
import { DOWNLOAD } from './forgetDownload.ts';
import { runTask, type Report } from '../tasks.svelte.ts';

/** What the user wants in an archive; without a passphrase it has no keys. */
export interface ArchiveWish extends Omit<ArchiveChoice, 'keys'> {
  passphrase: string;
}

const megabytes = (bytes: number): string => `${Math.round(bytes / 1e6)} MB`;

/** The name of an archive that was made at a moment. */
export const archiveName = (made: Date): string =>
  `swift-twin-${made.toISOString().slice(0, 16).replace('T', '-').replace(':', '')}.zip`;

/**
 * Writes an archive into a file, as a stream.
 * @returns bytes of its contents
 */
export async function writeArchiveTo(
  file: string | FileSystemFileHandle,
  choice: ArchiveChoice,
  made: Date,
  { signal, report }: { signal: AbortSignal; report: Report }
): Promise<number> {
  const told = proxy(({ bytes = 0 }: { bytes?: number }) => {
    if (bytes > 0) report(`${megabytes(bytes)} so far`);
    return !signal.aborted;
  });
  return archiveWorker().make(file, choice, made.toISOString(), told);
}

/**
 * Makes an archive, and gives it to the user.
 * @throws PlaceError `stopped`, `keys-locked`
 */
export function makeArchive({ passphrase, ...wish }: ArchiveWish): Promise<void> {
  return runTask('Making an archive', async (signal, report) => {
    const made = new Date();
    const keys = passphrase ? await sealKeys(passphrase) : '';
    await removeFiles([DOWNLOAD]);
    try {
      await writeArchiveTo(DOWNLOAD, { ...wish, keys }, made, { signal, report });
      const file = await readFile(DOWNLOAD);
      if (!file) throw new Error('The archive is gone.');
      downloadBlob(archiveName(made), file);
      await saveLastArchive({ at: made.toISOString(), bytes: file.size });
      await note({ what: 'archived', title: archiveName(made) });
    } catch (error) {
      await removeFiles([DOWNLOAD]);
      throw error;
    }
  });
}
