import { tableFile } from '$lib/core/archive/manifest.ts';
import {
  ARCHIVE_TABLE_NAMES,
  type ArchiveRow,
  type ArchiveTableName,
  type InFile
} from '$lib/core/archive/tables.ts';
import type { ArchivePart } from '$lib/core/archive/write.ts';
import { wavHead } from '$lib/core/audio/wav.ts';
import type { Media, Samples } from '$lib/core/model/rows.ts';
import { readFile } from '$lib/video/files.ts';
import { db } from '../db.ts';
import { modelFile } from '../ownVoices.ts';
import { readableCopies } from './copies.ts';
import { portableRows } from './rows.ts';

/** What the user wants in an archive beside all that was made and decided. */
export interface ArchiveChoice {
  /** Finished videos, and voices of the user's own. */
  withFiles: boolean;
  /** Posts as Markdown and HTML, captions as WebVTT. */
  withCopies: boolean;
  /** The keys, encrypted (`sealKeys`), or empty. */
  keys: string;
}

/** The file of an archive that holds the keys. */
export const KEYS_FILE = 'keys.json';

const READ_ME = `This is an archive of Swift Twin.

manifest.json   what is in it, with a SHA-256 of each file
tables/         all that was kept, a table a file, one JSON object a line (JSON lines, UTF-8)
media/          pictures, recordings and clips, as they are
sounds/         sentences that were read, as WAV
files/          finished videos, and voices, as they are
posts/          copies of posts as Markdown with front matter, and as HTML
captions/       copies of captions as WebVTT
keys.json       keys, encrypted, where they were asked for: PBKDF2 and AES-GCM

Import it on the view Archive. "bin/twin archive FILE" lists and checks it, and converts it to a folder.
`;

const ENDINGS: Record<string, string> = {
  'image/jpeg': 'jpg',
  'image/svg+xml': 'svg',
  'audio/mpeg': 'mp3',
  'audio/x-wav': 'wav',
  'video/x-matroska': 'mkv',
  'video/quicktime': 'mov'
};
const endingOf = (type: string): string =>
  ENDINGS[type] ?? /^\w+\/([a-z0-9]{1,8})(?:;|$)/.exec(type)?.[1] ?? 'bin';

/** Whether a table goes out only with the files that its rows are of. */
const IS_OF_FILES: ReadonlySet<ArchiveTableName> = new Set(['renders', 'voices', 'files']);

/**
 * All that goes into an archive, one part after the other.
 * @param counts is filled with the number of rows of each table
 */
export async function* archiveParts(
  choice: ArchiveChoice,
  counts: Record<string, number>
): AsyncGenerator<ArchivePart> {
  yield { name: 'READ ME.txt', content: READ_ME };
  for (const table of ARCHIVE_TABLE_NAMES) {
    if (IS_OF_FILES.has(table) && !choice.withFiles) continue;
    const files: OfRow[] = [];
    counts[table] = 0;
    yield { name: tableFile(table), content: jsonLines(table, files, counts) };
    for (const { file, read } of files) {
      const content = await read();
      if (content) yield { name: file, content };
    }
  }
  if (choice.withCopies) yield* readableCopies();
  if (choice.keys) yield { name: KEYS_FILE, content: choice.keys };
}

/** A file that belongs to a row: it is read when it is its turn. */
interface OfRow {
  file: string;
  read: () => Promise<Blob | null>;
}

async function* jsonLines(
  table: ArchiveTableName,
  files: OfRow[],
  counts: Record<string, number>
): AsyncGenerator<string> {
  const rows = table === 'files' ? keptFiles() : portableRows(table);
  for await (const row of rows) {
    counts[table] = (counts[table] ?? 0) + 1;
    yield `${JSON.stringify(asLine(table, row, files))}\n`;
  }
}

/** A row as it stands in its line: what is no JSON lies in a file of its own. */
function asLine(table: ArchiveTableName, row: ArchiveRow, files: OfRow[]): ArchiveRow {
  const number = String(files.length + 1).padStart(6, '0');
  const inFile = (file: string, type: string, read: OfRow['read']): InFile => {
    files.push({ file, read });
    return { file, type };
  };
  switch (table) {
    case 'media': {
      const { id, blob } = row as unknown as Media;
      const read = async () => (await db.media.get(id))?.blob ?? null;
      return { ...row, blob: inFile(`media/${number}.${endingOf(blob.type)}`, blob.type, read) };
    }
    case 'samples': {
      const { key } = row as unknown as Samples;
      return { key, samples: inFile(`sounds/${number}.wav`, 'audio/wav', () => wavOf(key)) };
    }
    case 'files': {
      const { name, type } = row as { name: string; type: string };
      const ending = name.endsWith('.onnx') ? 'onnx' : endingOf(type);
      const content = inFile(`files/${number}.${ending}`, type, () => readFile(name));
      return { name, content };
    }
    case 'journal':
    case 'steps': {
      // The numbers of lines are those of this browser.
      const { id: _, ...line } = row;
      return line;
    }
    default:
      return row;
  }
}

async function wavOf(key: string): Promise<Blob | null> {
  const [sound, said] = await Promise.all([db.samples.get(key), db.speech.get(key)]);
  if (!sound || !said) return null;
  const head = wavHead(sound.samples.length, 1, said.rate);
  return new Blob([head, sound.samples], { type: 'audio/wav' });
}

/** Files that cannot be made again without waiting, or not at all, by name and type. */
async function* keptFiles(): AsyncGenerator<ArchiveRow> {
  for await (const row of portableRows('renders')) {
    const { state, file, format } = row as { state: string; file: string; format: string };
    if (state === 'done' && (await readFile(file))) yield { name: file, type: `video/${format}` };
  }
  for await (const row of portableRows('voices')) {
    const name = modelFile(String(row.id));
    if (await readFile(name)) yield { name, type: 'application/octet-stream' };
  }
}
