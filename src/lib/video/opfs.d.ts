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

/** The part of File System Access that browsers with folders of the user's machine have. */
interface FileSystemHandle {
  queryPermission(wish: { mode: 'readwrite' }): Promise<PermissionState>;
  requestPermission(wish: { mode: 'readwrite' }): Promise<PermissionState>;
}
interface Window {
  showDirectoryPicker(options: {
    id: string;
    mode: 'readwrite';
  }): Promise<FileSystemDirectoryHandle>;
}
