/** The browser's own file system, on Node: one folder, in memory. */
class MemoryFile {
  constructor(
    private readonly files: Map<string, Uint8Array<ArrayBuffer>>,
    private name: string
  ) {}

  getFile(): Promise<File> {
    return Promise.resolve(new File([this.files.get(this.name)!], this.name));
  }

  createWritable(): Promise<object> {
    const blocks: BlobPart[] = [];
    const write = (block: BlobPart) => Promise.resolve(void blocks.push(block));
    const close = async () =>
      void this.files.set(this.name, new Uint8Array(await new Blob(blocks).arrayBuffer()));
    return Promise.resolve({ write, close, abort: () => Promise.resolve() });
  }

  move(name: string): Promise<void> {
    this.files.set(name, this.files.get(this.name)!);
    this.files.delete(this.name);
    this.name = name;
    return Promise.resolve();
  }
}

/** Puts such a file system in the place of the browser's. @returns its files by their names */
export function folderInMemory(): Map<string, Uint8Array<ArrayBuffer>> {
  const files = new Map<string, Uint8Array<ArrayBuffer>>();
  const folder = {
    keys: async function* () {
      yield* [...files.keys()];
    },
    getFileHandle: (name: string, { create = false } = {}) => {
      if (!files.has(name) && !create) return Promise.reject(new Error(`There is no ${name}.`));
      if (!files.has(name)) files.set(name, new Uint8Array());
      return Promise.resolve(new MemoryFile(files, name));
    },
    removeEntry: (name: string) =>
      files.delete(name) ? Promise.resolve() : Promise.reject(new Error(`There is no ${name}.`))
  };
  const storage = {
    getDirectory: () => Promise.resolve({ getDirectoryHandle: () => Promise.resolve(folder) })
  };
  Object.defineProperty(globalThis, 'navigator', { configurable: true, value: { storage } });
  return files;
}
