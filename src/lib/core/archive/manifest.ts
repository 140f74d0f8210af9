import { z } from 'zod';

/** The newest form of archives that this version writes and reads. */
export const ARCHIVE_VERSION = 1;
export const MANIFEST = 'manifest.json';

/** A file of an archive, as its manifest has it. */
export const archiveFileSchema = z.object({
  /** Its path within the archive, with slashes. */
  name: z.string(),
  /** Bytes of it as it is, not as it is packed. */
  bytes: z.number().int().nonnegative(),
  /** In hexadecimal digits. */
  sha256: z.string().regex(/^[0-9a-f]{64}$/)
});
export type ArchiveFile = z.infer<typeof archiveFileSchema>;

/** What an archive says of itself in `manifest.json`, beside its files. */
export const manifestHeadSchema = z.object({
  format: z.literal('swift-twin-archive'),
  /** Of the form of the archive. */
  version: z.number().int(),
  /** Of the tables in it. */
  schema: z.number().int().positive(),
  /** ISO 8601. */
  made: z.iso.datetime(),
  /** How many rows each table has, by its name. */
  tables: z.record(z.string(), z.number().int().nonnegative())
});
export type ManifestHead = z.infer<typeof manifestHeadSchema>;
export interface Manifest extends ManifestHead {
  files: ArchiveFile[];
}

/** The rows of a table lie in a file of this name, one a line. */
export const tableFile = (table: string): string => `tables/${table}.jsonl`;

const RESERVED = /^(?:con|prn|aux|nul|com\d|lpt\d)(?:\.|$)/i;

/** Whether a name may be written into a folder on any system without leaving it. */
export const isSafeName = (name: string): boolean =>
  name.length <= 240 &&
  name
    .split('/')
    .every(
      (part) =>
        /^[^\0-\x1F\x7F<>:"|?*\\]+$/.test(part) && !/[. ]$/.test(part) && !RESERVED.test(part)
    );
