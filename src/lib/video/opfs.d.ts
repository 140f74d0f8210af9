/** The part of the File System standard that workers have and TypeScript's DOM types leave out. */
interface FileSystemSyncAccessHandle {
  read(into: ArrayBufferView<ArrayBuffer>, options?: { at?: number }): number;
  write(from: ArrayBufferView<ArrayBuffer>, options?: { at?: number }): number;
  truncate(size: number): void;
  flush(): void;
  close(): void;
}
interface FileSystemFileHandle {
  createSyncAccessHandle(): Promise<FileSystemSyncAccessHandle>;
  /** Gives the file another name; one that has it already is replaced. */
  move(name: string): Promise<void>;
}
