import { archiveFolder, saveArchiveFolder, type ArchiveFolder } from '$lib/data/archive/folder.ts';
import { saveLastArchive } from '$lib/data/archive/reminder.ts';
import { note } from '$lib/data/journal.ts';
import { attempt, runTask } from '../tasks.svelte.ts';
import { archiveName, writeArchiveTo } from './makeArchive.ts';

/** Copies that are kept in the folder; older ones go. */
const KEPT = 7;
const OURS = /^swift-twin-\d{4}-\d\d-\d\d-\d{4}\.zip$/;
const DAY = 86_400_000;
/** Milliseconds after which a copy that failed is tried again. */
const AGAIN = 3_600_000;

let triedAt = 0;

/** Whether the browser can write into a folder of the user's machine. */
export const canWriteFolders = (): boolean => 'showDirectoryPicker' in globalThis;

/** Asks for a folder, and makes the first copy. @returns whether there is one now */
export async function chooseFolder(): Promise<boolean> {
  let handle: FileSystemDirectoryHandle;
  try {
    handle = await window.showDirectoryPicker({ id: 'archive', mode: 'readwrite' });
  } catch {
    // The user chose none.
    return false;
  }
  await saveArchiveFolder({ handle, last: '', trouble: '' });
  await copyNow();
  return true;
}

/** Asks the browser for the folder once more: it may forget that it was allowed. */
export async function allowFolder(): Promise<void> {
  const folder = await archiveFolder();
  if (folder && (await folder.handle.requestPermission({ mode: 'readwrite' })) === 'granted')
    await copyNow();
}

export const forgetFolder = (): Promise<unknown> => saveArchiveFolder(null);

/** Makes the copy of the day where it is due; one tab does. */
export async function copyDaily(): Promise<void> {
  const folder = await archiveFolder();
  if (!folder || Date.now() - (Date.parse(folder.last) || 0) < DAY) return;
  if (Date.now() - triedAt < AGAIN) return;
  triedAt = Date.now();
  await copyNow();
}

/** Makes a copy now, and notes what came of it. */
export async function copyNow(): Promise<void> {
  return navigator.locks.request(
    'archive-copy',
    { ifAvailable: true },
    async (lock): Promise<void> => {
      const folder = await archiveFolder();
      if (!lock || !folder) return;
      const isAllowed = (await folder.handle.queryPermission({ mode: 'readwrite' })) === 'granted';
      if (!isAllowed) {
        await saveArchiveFolder({ ...folder, trouble: 'not-allowed' });
        return;
      }
      const { value: bytes } = await attempt(() => writeCopy(folder));
      // The user may have chosen another folder meanwhile.
      if (!(await folder.handle.isSameEntry((await archiveFolder())?.handle ?? folder.handle)))
        return;
      if (bytes === null) {
        await saveArchiveFolder({ ...folder, trouble: 'failed' });
        return;
      }
      const at = new Date().toISOString();
      await saveArchiveFolder({ ...folder, last: at, trouble: '' });
      await saveLastArchive({ at, bytes });
      await note({ what: 'archived', title: folder.handle.name });
    }
  );
}

/** @returns bytes of the copy */
function writeCopy({ handle }: ArchiveFolder): Promise<number> {
  return runTask('Copying everything to your folder', async (signal, report) => {
    const made = new Date();
    const name = archiveName(made);
    const file = await handle.getFileHandle(name, { create: true });
    try {
      // Keys need a passphrase, and nobody is asked for it here.
      const choice = { withFiles: true, withCopies: true, keys: '' };
      await writeArchiveTo(file, choice, made, { signal, report });
    } catch (error) {
      await handle.removeEntry(name).catch(() => {});
      throw error;
    }
    await removeOld(handle);
    return (await file.getFile()).size;
  });
}

async function removeOld(folder: FileSystemDirectoryHandle): Promise<void> {
  const names: string[] = [];
  for await (const name of folder.keys()) if (OURS.test(name)) names.push(name);
  for (const name of names.toSorted().slice(0, -KEPT)) await folder.removeEntry(name);
}
