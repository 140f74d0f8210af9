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

export async function removeFiles(names: readonly string[]): Promise<void> {
  const held = await folder();
  for (const name of names) await held.removeEntry(name).catch(() => {});
}

/** Removes what begins with a prefix, but for the names kept. */
export async function removeOthers(prefix: string, kept: readonly string[]): Promise<void> {
  const held = await folder();
  const names: string[] = [];
  for await (const name of held.keys()) names.push(name);
  await removeFiles(names.filter((n) => n.startsWith(prefix) && !kept.includes(n)));
}

/** Blocks in a stretch. */
const STRETCH = 10;

/** Bytes of sound that are kept in memory: what is longer goes on in a file, which takes longer. */
const IN_MEMORY = 40_000_000;

/** Sound written down while it is mixed, and read again piece by piece. Workers only. */
export class SoundFile {
  private constructor(
    private readonly handle: FileSystemSyncAccessHandle,
    readonly channels: number
  ) {}

  static async open(name: string, channels: number): Promise<SoundFile> {
    const file = await (await folder()).getFileHandle(name, { create: true });
    const handle = await file.createSyncAccessHandle();
    handle.truncate(0);
    return new SoundFile(handle, channels);
  }

  /** The first blocks, and where the file that has the others ends. */
  #kept: Float32Array[][] = [];
  #keptBytes = 0;
  #end = 0;

  append(channels: readonly Float32Array[]): void {
    this.#lengths.push(channels[0]?.length ?? 0);
    if (this.#keptBytes < IN_MEMORY) {
      this.#kept.push(channels.map((samples) => samples.slice()));
      for (const samples of channels) this.#keptBytes += samples.byteLength;
      return;
    }
    for (const samples of channels) {
      this.handle.write(samples as Float32Array<ArrayBuffer>, { at: this.#end });
      this.#end += samples.byteLength;
    }
  }

  readonly #lengths: number[] = [];

  /**
   * The blocks as they were written; later ones in the same memory: what is to be kept is copied.
   * @param one of so many stretches of ten blocks is given, the others are passed over
   */
  async *blocks(every = 1): AsyncGenerator<Float32Array[]> {
    const longest = Math.max(0, ...this.#lengths);
    const memory = Array.from({ length: this.channels }, () => new Float32Array(longest));
    let at = 0;
    for (const [n, length] of this.#lengths.entries()) {
      const kept = this.#kept[n];
      const isWanted = Math.floor(n / STRETCH) % every === 0;
      if (kept) {
        if (isWanted) yield kept;
        continue;
      }
      const bytes = length * this.channels * Float32Array.BYTES_PER_ELEMENT;
      if (isWanted) {
        const block = memory.map((channel) => channel.subarray(0, length));
        let from = at;
        for (const samples of block) {
          this.handle.read(samples, { at: from });
          from += samples.byteLength;
        }
        yield block;
      }
      at += bytes;
    }
  }

  close(): void {
    this.#kept = [];
    this.handle.truncate(0);
    this.handle.close();
  }
}
