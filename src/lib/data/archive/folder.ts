import { z } from 'zod';
import { readSetting, saveSetting } from '../settings.ts';

const FOLDER = 'archive/folder';

/** A folder of the user's machine that gets a copy each day. */
const archiveFolderSchema = z.object({
  handle: z.custom<FileSystemDirectoryHandle>(
    (value) => typeof value === 'object' && value !== null
  ),
  /** ISO 8601 of the last copy; empty before the first. */
  last: z.string(),
  /** Why the last try gave none; empty if it did. */
  trouble: z.enum(['', 'not-allowed', 'failed'])
});
export type ArchiveFolder = z.infer<typeof archiveFolderSchema>;

export const archiveFolder = (): Promise<ArchiveFolder | null> =>
  readSetting(FOLDER, archiveFolderSchema.nullable().catch(null));
export const saveArchiveFolder = (folder: ArchiveFolder | null): Promise<unknown> =>
  saveSetting(FOLDER, folder);
