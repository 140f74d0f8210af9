/** Archives on the command line: what is in one, whether it is sound, and its files in a folder. */
import { createWriteStream, openAsBlob } from 'node:fs';
import { mkdir, readdir, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { checkArchive } from '../src/lib/core/archive/check.ts';
import { ArchiveError, isUnusable, type ArchiveFault } from '../src/lib/core/archive/problem.ts';
import { plural } from '../src/lib/core/text/plural.ts';
import { Archive } from '../src/lib/core/archive/read.ts';
import { BadInput, whyUnreadable } from './badInput.ts';

const FAULTS: Record<ArchiveFault['kind'], string> = {
  'not-an-archive': 'this is no archive of Swift Twin',
  'cut-off': 'its end is missing, or it is damaged',
  'manifest-damaged': 'the list of what is in it is damaged',
  'later-version': 'it was made by a later version',
  'tables-damaged': 'its tables are damaged'
};

/**
 * Lists and checks an archive.
 * @param folder where its sound files go, or undefined; it must be new or empty
 * @returns JSON
 */
export async function archiveCommand(file: string, folder: string | undefined): Promise<string> {
  const archive = await opened(file);
  const findings = await checkArchive(archive);
  const unusable = new Set(findings.filter(isUnusable).map((finding) => finding.file));
  if (folder !== undefined) await unpack(archive, unusable, folder);
  const { made, schema, tables } = archive.head;
  const out = `${JSON.stringify({ made, schema, tables, ...archive.extent(), findings }, null, 2)}\n`;
  if (findings.length > 0)
    throw new BadInput(
      `${file}: ${plural(findings.length, 'file is', 'files are')} not sound`,
      out
    );
  return out;
}

async function opened(file: string): Promise<Archive> {
  try {
    if ((await stat(file)).isDirectory()) throw new BadInput(`${file}: this is a folder`);
    return await Archive.open(await openAsBlob(file));
  } catch (error) {
    if (error instanceof BadInput) throw error;
    if (error instanceof ArchiveError) throw new BadInput(`${file}: ${FAULTS[error.fault.kind]}`);
    throw new BadInput(`${file}: ${whyUnreadable(error)}`);
  }
}

/** Writes the sound files of an archive; a file that is there already is never written over. */
async function unpack(
  archive: Archive,
  unusable: ReadonlySet<string>,
  folder: string
): Promise<void> {
  await mkdir(folder, { recursive: true }).catch(() => {
    throw new BadInput(`${folder}: the folder cannot be made`);
  });
  if ((await readdir(folder)).length > 0) throw new BadInput(`${folder}: the folder is not empty`);
  for (const { name } of archive.files()) {
    if (unusable.has(name) || !archive.has(name)) continue;
    const to = join(folder, name);
    await mkdir(dirname(to), { recursive: true });
    await pipeline(archive.blocks(name), createWriteStream(to, { flags: 'wx' }));
  }
}
