import { ZipReader } from '@zip.js/zip.js/lib/zip-core-native.js';
import { inflateSync } from 'fflate';
import { blocksOf, reusedBlocksOf } from './blocks.ts';
import { BufferedReader } from './bufferedReader.ts';
import { DEFLATED, LOCAL_HEAD, LOCAL_HEAD_MARK, STORED } from './records.ts';

/** Where a file lies in a ZIP, and how. */
interface Lying {
  offset: number;
  method: number;
  isEncrypted: boolean;
  /** Bytes as it lies in it, and as it is. */
  packed: number;
  size: number;
  crc32: number;
}

/** Bytes of a file that is unpacked at once. */
const SMALL = 1 << 20;

/** A ZIP that is open for reading: of the file only what is asked for is read. */
export class OpenZip {
  private readonly reused = new Uint8Array(SMALL);

  private constructor(
    private readonly file: Blob,
    private readonly reader: BufferedReader,
    private readonly entries: ReadonlyMap<string, Lying>
  ) {}

  /**
   * Of each file is kept where it lies: all that a ZIP says of thousands of them would be hundreds of megabytes.
   * @param isKept by name; other files are as if they were not there
   * @throws an error of zip.js where the file cannot be read as a ZIP
   */
  static async open(file: Blob, isKept: (name: string) => boolean): Promise<OpenZip> {
    const reader = new BufferedReader(file);
    const entries = new Map<string, Lying>();
    const directory = new ZipReader(reader, { useWebWorkers: false }).getEntriesGenerator();
    for await (const entry of directory)
      if (!entry.directory && isKept(entry.filename))
        entries.set(entry.filename, {
          offset: entry.offset,
          method: entry.compressionMethod,
          isEncrypted: entry.encrypted,
          packed: entry.compressedSize,
          size: entry.uncompressedSize,
          crc32: entry.signature ?? 0
        });
    return new OpenZip(file, reader, entries);
  }

  has(name: string): boolean {
    return this.entries.has(name);
  }

  names(): IterableIterator<string> {
    return this.entries.keys();
  }

  /** The check sum that the ZIP has of a file. */
  crc32Of(name: string): number | null {
    return this.entries.get(name)?.crc32 ?? null;
  }

  /** A file that lies in the ZIP as it is, as a part of it: nothing is copied. Null where it is packed. */
  async part(name: string, type = ''): Promise<Blob | null> {
    const entry = this.entries.get(name);
    return entry?.method === STORED ? this.lying(entry, type) : null;
  }

  /**
   * What stands in a file, unpacked, block by block. It ends with an error where it cannot be unpacked; check sums
   * are not looked at.
   * @param isReused a block is good only until the next one is asked for: files of any size are read in the
   * same memory
   */
  async *blocks(name: string, isReused = false): AsyncGenerator<Uint8Array> {
    const entry = this.entries.get(name);
    if (!entry) throw new RangeError(`There is no ${name}.`);
    if (entry.method === DEFLATED && Math.max(entry.packed, entry.size) <= SMALL)
      return yield await this.unpackedAtOnce(entry, isReused);
    const lying = await this.lying(entry);
    if (!lying) throw new RangeError(`${name} cannot be found.`);
    if (entry.method === STORED)
      return yield* (isReused ? reusedBlocksOf : blocksOf)(lying.stream());
    if (entry.method !== DEFLATED) throw new RangeError(`${name} is packed in an unknown way.`);
    yield* blocksOf(lying.stream().pipeThrough(new DecompressionStream('deflate-raw')));
  }

  /** Thousands of small files would spend their time and memory in streams. */
  private async unpackedAtOnce(entry: Lying, isReused: boolean): Promise<Uint8Array> {
    const from = await this.beginOf(entry);
    if (from === null) throw new RangeError('The file cannot be found.');
    const packed = await this.reader.readUint8Array(from, entry.packed);
    const out = isReused ? this.reused.subarray(0, entry.size) : new Uint8Array(entry.size);
    return inflateSync(packed, { out });
  }

  private async lying(entry: Lying, type = ''): Promise<Blob | null> {
    const from = await this.beginOf(entry);
    return from === null ? null : this.file.slice(from, from + entry.packed, type);
  }

  /** Where the content of a file begins; null where there is no file, or it is encrypted. */
  private async beginOf({ offset, isEncrypted }: Lying): Promise<number | null> {
    if (isEncrypted) return null;
    const bytes = await this.reader.readUint8Array(offset, LOCAL_HEAD);
    const head = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
    if (head.byteLength < LOCAL_HEAD || head.getUint32(0, true) !== LOCAL_HEAD_MARK) return null;
    return offset + LOCAL_HEAD + head.getUint16(26, true) + head.getUint16(28, true);
  }
}
