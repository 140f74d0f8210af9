/** Files of this application in the browser's own file system (OPFS). */

const FOLDER = 'videos';

async function folder(): Promise<FileSystemDirectoryHandle> {
  const root = await navigator.storage.getDirectory();
  return root.getDirectoryHandle(FOLDER, { create: true });
}

/** A finished file; null where there is none of this name. */
export async function readFile(name: string): Promise<File | null> {
  try {
    return await (await (await folder()).getFileHandle(name)).getFile();
  } catch {
    return null;
  }
}

/** A stream into a file. What was written takes effect when the stream is closed, all at once. */
export async function writeFile(name: string): Promise<FileSystemWritableFileStream> {
  const handle = await (await folder()).getFileHandle(name, { create: true });
  return handle.createWritable();
}

/**
 * Writes a file that has its name, and so counts as finished, only once all of it is written. Work that
 * fails leaves nothing open: what is locked could not be written anew.
 * @param work writes; it need not close
 */
export async function writeWhole(
  name: string,
  work: (file: FileSystemWritableFileStream) => Promise<void>
): Promise<void> {
  const handle = await (await folder()).getFileHandle(`${name}.partial`, { create: true });
  const file = await handle.createWritable();
  try {
    await work(file);
    await file.close();
  } catch (error) {
    await file.abort().catch(() => {});
    throw error;
  }
  await handle.move(name);
}

/** Gives a finished file another name; one of that name is replaced. */
export async function renameFile(name: string, to: string): Promise<void> {
  await (await (await folder()).getFileHandle(name)).move(to);
}

export async function removeFiles(names: readonly string[]): Promise<void> {
  const held = await folder();
  for (const name of names) await held.removeEntry(name).catch(() => {});
}

/** Names and bytes of all files. */
export async function listFiles(): Promise<{ name: string; bytes: number }[]> {
  const held = await folder();
  const files: { name: string; bytes: number }[] = [];
  for await (const name of held.keys())
    files.push({ name, bytes: (await readFile(name))?.size ?? 0 });
  return files;
}

/** Removes what begins with a prefix, but for the names kept. */
export async function removeOthers(prefix: string, kept: readonly string[]): Promise<void> {
  const held = await folder();
  const names: string[] = [];
  for await (const name of held.keys()) names.push(name);
  await removeFiles(names.filter((n) => n.startsWith(prefix) && !kept.includes(n)));
}

/** Opens a file to be written and read at any place. Workers only. */
export async function openToReadAndWrite(name: string): Promise<FileSystemSyncAccessHandle> {
  const file = await (await folder()).getFileHandle(name, { create: true });
  return file.createSyncAccessHandle();
}
