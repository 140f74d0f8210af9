import { ZipReader, type FileEntry } from '@zip.js/zip.js/lib/zip-core-native.js';
import { inflateSync } from 'fflate';
import { BufferedReader } from './bufferedReader.ts';
import { blocksOf, reusedBlocksOf } from './lines.ts';
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
/** Of the head of a file in a ZIP (APPNOTE.TXT 4.3.7). */
const [HEAD, HEAD_MARK] = [30, 0x04034b50];
/** How a file is packed (4.4.5). */
const [STORED, DEFLATED] = [0, 8];
/** Bytes of a file that is unpacked at once. */
const SMALL = 1 << 20;

/** An archive that is open for reading: a file of the user's, of which only what is asked for is read. */
export class Archive {
  private readonly files: ReadonlyMap<string, ArchiveFile>;

  private constructor(
    private readonly file: Blob,
    private readonly reader: BufferedReader,
    private readonly entries: ReadonlyMap<string, FileEntry>,
    readonly manifest: Manifest
  ) {
    this.files = new Map(manifest.files.map((listed) => [listed.name, listed]));
  }

  /** @throws ArchiveError where the file is no archive, or cannot be read as one */
  static async open(file: Blob): Promise<Archive> {
    const reader = new BufferedReader(file);
    const entries = await entriesOf(reader, file);
    const entry = entries.get(MANIFEST);
    if (!entry) throw new ArchiveError({ kind: 'not-an-archive' });
    return new Archive(file, reader, entries, await manifestOf(entry));
  }

  has(name: string): boolean {
    return this.entries.has(name);
  }

  /** What the manifest says of a file. */
  fileOf(name: string): ArchiveFile | null {
    return this.files.get(name) ?? null;
  }

  /** Names of files that the manifest does not tell of. */
  unlisted(): string[] {
    return [...this.entries.keys()].filter((name) => name !== MANIFEST && !this.files.has(name));
  }

  /** A file that lies in the archive as it is, as a part of it: nothing is copied. Null where it is packed. */
  async part(name: string, type = ''): Promise<Blob | null> {
    const entry = this.entries.get(name);
    if (!entry || entry.compressionMethod !== STORED || entry.encrypted) return null;
    const from = await this.beginOf(entry);
    return from === null ? null : this.file.slice(from, from + entry.uncompressedSize, type);
  }

  /** Where the content of a file begins; null where there is no file. */
  private async beginOf({ offset }: FileEntry): Promise<number | null> {
    const bytes = await this.reader.readUint8Array(offset, HEAD);
    const head = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
    if (head.byteLength < HEAD || head.getUint32(0, true) !== HEAD_MARK) return null;
    return offset + HEAD + head.getUint16(26, true) + head.getUint16(28, true);
  }

  /** A small packed file, unpacked at once: thousands of them would spend their time and memory in streams. */
  private async small(entry: FileEntry): Promise<Uint8Array | null> {
    const { compressionMethod, compressedSize, uncompressedSize } = entry;
    const isSmall = Math.max(compressedSize, uncompressedSize) <= SMALL;
    if (compressionMethod !== DEFLATED || entry.encrypted || !isSmall) return null;
    const from = await this.beginOf(entry);
    if (from === null) return null;
    const packed = await this.reader.readUint8Array(from, compressedSize);
    return inflateSync(packed, { out: new Uint8Array(uncompressedSize) });
  }

  /**
   * What stands in a file, unpacked, block by block. It ends with an error where the file is damaged, or
   * longer than the manifest says.
   * @param isReused a block is good only until the next one is asked for: files of any size are read in the
   * same memory
   */
  async *blocks(
    name: string,
    { signal, isReused = false }: { signal?: AbortSignal; isReused?: boolean } = {}
  ): AsyncGenerator<Uint8Array> {
    const entry = this.entries.get(name);
    if (!entry) throw new RangeError(`There is no ${name}.`);
    const most = this.files.get(name)?.bytes ?? 0;
    const small = await this.small(entry);
    if (small) return yield* upTo(most, [small]);
    const part = await this.part(name);
    const asItIs = isReused ? reusedBlocksOf : blocksOf;
    yield* upTo(most, part ? asItIs(part.stream()) : unpacked(entry, signal));
  }
}

async function* upTo(
  most: number,
  blocks: AsyncIterable<Uint8Array> | Iterable<Uint8Array>
): AsyncGenerator<Uint8Array> {
  let bytes = 0;
  for await (const block of blocks) {
    bytes += block.length;
    if (bytes > most) throw new RangeError('The file is longer than it should be.');
    yield block;
  }
}

/** The check sum of the ZIP counts for the manifest only: that has the hashes of all others. */
async function* unpacked(entry: FileEntry, signal?: AbortSignal): AsyncGenerator<Uint8Array> {
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
  const isDone = entry.getData(writable, {
    useWebWorkers: false,
    checkCrc32: entry.filename === MANIFEST,
    signal
  });
  // It is told by the stream, to whoever reads on.
  isDone.catch((error: unknown) => writable.abort(error).catch(() => {}));
  yield* blocksOf(readable);
}

async function entriesOf(zip: BufferedReader, file: Blob): Promise<Map<string, FileEntry>> {
  const entries = new Map<string, FileEntry>();
  try {
    const reader = new ZipReader(zip, { useWebWorkers: false });
    for await (const entry of reader.getEntriesGenerator())
      if (!entry.directory && isSafeName(entry.filename)) entries.set(entry.filename, entry);
    return entries;
  } catch {
    const head = new Uint8Array(await file.slice(0, 4).arrayBuffer());
    const isZip =
      new DataView(head.buffer).byteLength === 4 && head[0] === 0x50 && head[1] === 0x4b;
    throw new ArchiveError({ kind: isZip ? 'cut-off' : 'not-an-archive' });
  }
}

async function manifestOf(entry: FileEntry): Promise<Manifest> {
  const damaged = new ArchiveError({ kind: 'manifest-damaged' });
  let told: unknown;
  try {
    const blocks: Uint8Array<ArrayBuffer>[] = [];
    for await (const block of upTo(LONGEST_MANIFEST, unpacked(entry)))
      blocks.push(block as Uint8Array<ArrayBuffer>);
    told = JSON.parse(await new Blob(blocks).text());
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
