import { ArchiveError, type ArchiveFault, type ArchiveFinding } from '$lib/core/archive/problem.ts';
import { Archive } from '$lib/core/archive/read.ts';
import { writeArchive } from '$lib/core/archive/write.ts';
import {
  importArchive,
  type ImportChoice,
  type ImportedCounts
} from '$lib/data/archive/importArchive.ts';
import { archiveParts, type ArchiveChoice } from '$lib/data/archive/parts.ts';
import { planImport, type ArchivePlan } from '$lib/data/archive/plan.ts';
import { examineArchive, fileOf, openSource } from '$lib/data/archive/source.ts';
import { TABLES_VERSION } from '$lib/data/versions.ts';
import { writeFile } from '$lib/video/files.ts';

/** How far the work has come. */
export interface ArchiveProgress {
  bytes?: number;
  rows?: number;
}
/** Is told now and then how far the work has come. @returns whether it is to go on */
export type Told = (progress: ArchiveProgress) => boolean | Promise<boolean>;

/** What an archive is, once all of it was read. */
export interface ExaminedArchive {
  made: string;
  bytes: number;
  files: number;
  findings: ArchiveFinding[];
  plan: ArchivePlan;
}
/** One of them is there. */
export interface Faulty<T> {
  value: T | null;
  fault: ArchiveFault | null;
}

/** Milliseconds between two words to whoever waits. */
const TELL_EVERY = 100;

/** Tells now and then, and aborts the work once it is not to go on. */
function watched(told: Told) {
  const controller = new AbortController();
  let last = 0;
  const tell = (progress: ArchiveProgress) => {
    const now = performance.now();
    if (now - last < TELL_EVERY) return;
    last = now;
    void Promise.resolve(told(progress)).then((goesOn) => {
      if (!goesOn) controller.abort();
    });
  };
  return { signal: controller.signal, tell };
}

async function faulty<T>(work: () => Promise<T>): Promise<Faulty<T>> {
  try {
    return { value: await work(), fault: null };
  } catch (error) {
    if (error instanceof ArchiveError) return { value: null, fault: error.fault };
    throw error;
  }
}

export const archiveApi = {
  /**
   * Writes an archive into a file of this application, or one that the user gave.
   * @param made ISO 8601
   * @returns bytes of its contents
   */
  async make(
    file: string | FileSystemFileHandle,
    choice: ArchiveChoice,
    made: string,
    told: Told
  ): Promise<number> {
    const { signal, tell } = watched(told);
    const out = typeof file === 'string' ? await writeFile(file) : await file.createWritable();
    const tables: Record<string, number> = {};
    const head = { schema: TABLES_VERSION, made, tables };
    const report = (_: string, bytes: number) => tell({ bytes });
    return writeArchive(out, archiveParts(choice, tables), head, { signal, report });
  },

  /** Reads all of an archive, and says what importing it would do. */
  examine: (file: Blob, told: Told): Promise<Faulty<ExaminedArchive>> =>
    faulty(async () => {
      const { signal, tell } = watched(told);
      const report = (_: string, bytes: number) => tell({ bytes });
      const { archive, findings } = await examineArchive(file, { signal, report });
      const source = await openSource(archive, findings);
      try {
        const plan = await planImport(source, { signal, report: (rows) => tell({ rows }) });
        return { made: archive.head.made, ...archive.extent(), findings, plan };
      } finally {
        await source.close();
      }
    }),

  /** The encrypted keys of an archive, as they stand in it; empty where there are none. */
  async sealedKeys(file: Blob, name: string): Promise<string> {
    const archive = await Archive.open(file);
    return (await (await fileOf({ archive, left: new Set() }, name, ''))?.text()) ?? '';
  },

  /** Imports what is sound of an archive that was examined. */
  import: (
    file: Blob,
    findings: readonly ArchiveFinding[],
    choice: ImportChoice,
    told: Told
  ): Promise<Faulty<ImportedCounts>> =>
    faulty(async () => {
      const { signal, tell } = watched(told);
      const source = await openSource(await Archive.open(file), findings);
      try {
        return await importArchive(source, choice, { signal, report: (rows) => tell({ rows }) });
      } finally {
        await source.close();
      }
    })
};

export type ArchiveApi = typeof archiveApi;
