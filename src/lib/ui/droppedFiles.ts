import type { FoundFile } from '$lib/work/library.ts';

/** Files that were dropped, those within folders too, with their paths. */
export async function droppedFiles(data: DataTransfer): Promise<FoundFile[]> {
  // Entries are there while the event is handled only.
  const entries = [...data.items].map((item) => item.webkitGetAsEntry());
  const plain = [...data.files];
  if (entries.every((entry) => entry === null))
    return plain.map((file) => ({ file, path: file.name }));
  const found: FoundFile[] = [];
  for (const entry of entries) if (entry) await readEntry(entry, found);
  return found;
}

async function readEntry(entry: FileSystemEntry, found: FoundFile[]): Promise<void> {
  if (entry instanceof FileSystemFileEntry) {
    const file = await new Promise<File | null>((done) => entry.file(done, () => done(null)));
    if (file) found.push({ file, path: entry.fullPath.replace(/^\//, '') });
  } else if (entry instanceof FileSystemDirectoryEntry) {
    const reader = entry.createReader();
    // A folder tells its entries a hundred at a time.
    for (;;) {
      const some = await new Promise<FileSystemEntry[]>((done) =>
        reader.readEntries(done, () => done([]))
      );
      if (some.length === 0) return;
      for (const child of some) await readEntry(child, found);
    }
  }
}
