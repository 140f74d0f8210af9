import crc32 from 'crc-32';
import { OpenZip } from '../zip/read.ts';
import {
  ARCHIVE_VERSION,
  MANIFEST,
  isSafeName,
  manifestSchema,
  type ArchiveFile,
  type Manifest
} from './manifest.ts';
import { ArchiveError } from './problem.ts';

/** Bytes of the longest manifest that is read: it names a million files. */
const LONGEST_MANIFEST = 200_000_000;

/** An archive that is open for reading: a file of the user's, of which only what is asked for is read. */
export class Archive {
  private readonly files: ReadonlyMap<string, ArchiveFile>;

  private constructor(
    private readonly zip: OpenZip,
    readonly manifest: Manifest
  ) {
    this.files = new Map(manifest.files.map((listed) => [listed.name, listed]));
  }

  /** @throws ArchiveError where the file is no archive, or cannot be read as one */
  static async open(file: Blob): Promise<Archive> {
    const zip = await openZip(file);
    if (!zip.has(MANIFEST)) throw new ArchiveError({ kind: 'not-an-archive' });
    return new Archive(zip, await manifestOf(zip));
  }

  has(name: string): boolean {
    return this.zip.has(name);
  }

  /** What the manifest says of a file. */
  fileOf(name: string): ArchiveFile | null {
    return this.files.get(name) ?? null;
  }

  /** Names of files that the manifest does not tell of. */
  unlisted(): string[] {
    return [...this.zip.names()].filter((name) => name !== MANIFEST && !this.files.has(name));
  }

  /** A file that lies in the archive as it is, as a part of it: nothing is copied. Null where it is packed. */
  part(name: string, type = ''): Promise<Blob | null> {
    return this.zip.part(name, type);
  }

  /**
   * What stands in a file, unpacked, block by block. It ends with an error where the file is damaged, or
   * longer than the manifest says.
   * @param isReused a block is good only until the next one is asked for: files of any size are read in the
   * same memory
   */
  blocks(name: string, { isReused = false } = {}): AsyncGenerator<Uint8Array> {
    return upTo(this.files.get(name)?.bytes ?? 0, this.zip.blocks(name, isReused));
  }
}

async function* upTo(most: number, blocks: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
  let bytes = 0;
  for await (const block of blocks) {
    bytes += block.length;
    if (bytes > most) throw new RangeError('The file is longer than it should be.');
    yield block;
  }
}

async function openZip(file: Blob): Promise<OpenZip> {
  try {
    return await OpenZip.open(file, isSafeName);
  } catch {
    const head = new Uint8Array(await file.slice(0, 4).arrayBuffer());
    const isZip = head.length === 4 && head[0] === 0x50 && head[1] === 0x4b;
    throw new ArchiveError({ kind: isZip ? 'cut-off' : 'not-an-archive' });
  }
}

async function manifestOf(zip: OpenZip): Promise<Manifest> {
  const damaged = new ArchiveError({ kind: 'manifest-damaged' });
  let told: unknown;
  try {
    told = JSON.parse(await manifestText(zip));
  } catch {
    throw damaged;
  }
  const { format, version } = (told ?? {}) as Record<string, unknown>;
  if (format !== 'swift-twin-archive') throw new ArchiveError({ kind: 'not-an-archive' });
  if (typeof version === 'number' && version > ARCHIVE_VERSION)
    throw new ArchiveError({ kind: 'later-version' });
  const { data } = manifestSchema.safeParse(told);
  if (!data) throw damaged;
  return data;
}

/** The check sum of the ZIP counts for the manifest only: that has the hashes of all others. */
async function manifestText(zip: OpenZip): Promise<string> {
  const decoder = new TextDecoder();
  let text = '';
  let sum = 0;
  for await (const block of upTo(LONGEST_MANIFEST, zip.blocks(MANIFEST))) {
    sum = crc32.buf(block, sum);
    text += decoder.decode(block, { stream: true });
  }
  if (sum >>> 0 !== zip.crc32Of(MANIFEST)) throw new RangeError('The manifest is damaged.');
  return text + decoder.decode();
}
