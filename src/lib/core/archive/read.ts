import crc32 from 'crc-32';
import { OpenZip } from '../zip/read.ts';
import { ListedFiles } from './listedFiles.ts';
import { MANIFEST, isSafeName, type ArchiveFile, type ManifestHead } from './manifest.ts';
import { ArchiveError } from './problem.ts';
import { readManifest } from './readManifest.ts';

/** Bytes of the longest manifest that is read: it names a million files. */
const LONGEST_MANIFEST = 200_000_000;

/** An archive that is open for reading: a file of the user's, of which only what is asked for is read. */
export class Archive {
  private constructor(
    private readonly zip: OpenZip,
    readonly head: ManifestHead,
    private readonly listed: ListedFiles
  ) {}

  /** @throws ArchiveError where the file is no archive, or cannot be read as one */
  static async open(file: Blob): Promise<Archive> {
    const zip = await openZip(file);
    if (!zip.has(MANIFEST)) throw new ArchiveError({ kind: 'not-an-archive' });
    const listed = new ListedFiles(zip);
    const head = await readManifest(soundManifest(zip), (one) => listed.add(one));
    return new Archive(zip, head, listed);
  }

  /** What the manifest says of all files: first those that are there. */
  files(): Iterable<ArchiveFile> {
    return this.listed.all();
  }

  /** How many files the manifest tells of, and their bytes together. */
  extent(): { files: number; bytes: number } {
    const extent = { files: 0, bytes: 0 };
    for (const { bytes } of this.files()) {
      extent.files++;
      extent.bytes += bytes;
    }
    return extent;
  }

  has(name: string): boolean {
    return this.zip.has(name);
  }

  /** Bytes of a file as it is, as the manifest says; null where it says nothing of it. */
  bytesOf(name: string): number | null {
    return this.listed.bytesOf(name);
  }

  /** Names of files that the manifest does not tell of. */
  unlisted(): string[] {
    return [...this.zip.names()].filter((name) => name !== MANIFEST && this.bytesOf(name) === null);
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
    return upTo(this.bytesOf(name) ?? 0, this.zip.blocks(name, isReused));
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

/** The check sum of the ZIP counts for the manifest only: that has the hashes of all others. */
async function* soundManifest(zip: OpenZip): AsyncGenerator<Uint8Array> {
  let sum = 0;
  for await (const block of upTo(LONGEST_MANIFEST, zip.blocks(MANIFEST))) {
    sum = crc32.buf(block, sum);
    yield block;
  }
  if (sum >>> 0 !== zip.crc32Of(MANIFEST)) throw new RangeError('The manifest is damaged.');
}
