import { Inflate, inflateSync } from 'fflate';
import { blocksOf, reusedBlocksOf } from './blocks.ts';
import { BufferedReader } from './bufferedReader.ts';
import { readDirectory, type Lying } from './directory.ts';
import { NumberRows } from './numberRows.ts';
import { DEFLATED, LOCAL_HEAD, MARKS, STORED } from './records.ts';

/** Bytes of a file that is unpacked at once. */
const SMALL = 1 << 20;

/** Numbers that tell where a file lies. */
const PLACE = 6;
const asNumbers = ({ offset, method, isEncrypted, packed, size, crc32 }: Lying): number[] => [
  offset,
  method,
  Number(isEncrypted),
  packed,
  size,
  crc32
];
const fromNumbers = ([offset, method, isEncrypted, packed, size, crc32]: Float64Array): Lying => ({
  offset: offset!,
  method: method!,
  isEncrypted: isEncrypted === 1,
  packed: packed!,
  size: size!,
  crc32: crc32!
});

/** A ZIP that is open for reading: of the file only what is asked for is read. */
export class OpenZip {
  private readonly reused = new Uint8Array(SMALL);

  private constructor(
    private readonly file: Blob,
    private readonly reader: BufferedReader,
    private readonly rows: ReadonlyMap<string, number>,
    private readonly places: NumberRows
  ) {}

  /**
   * @param isKept by name; other files are as if they were not there
   * @throws RangeError where the file cannot be read as a ZIP
   */
  static async open(file: Blob, isKept: (name: string) => boolean): Promise<OpenZip> {
    const reader = new BufferedReader(file);
    const rows = new Map<string, number>();
    const places = new NumberRows(PLACE);
    for await (const { name, lying } of readDirectory(reader))
      if (isKept(name)) rows.set(name, places.add(asNumbers(lying)));
    return new OpenZip(file, reader, rows, places);
  }

  has(name: string): boolean {
    return this.rows.has(name);
  }

  names(): IterableIterator<string> {
    return this.rows.keys();
  }

  /** Whoever keeps something of each file can number them by this: below `count`. */
  rowOf(name: string): number | undefined {
    return this.rows.get(name);
  }

  get count(): number {
    return this.places.count;
  }

  /** The check sum that the ZIP has of a file. */
  crc32Of(name: string): number | null {
    return this.find(name)?.crc32 ?? null;
  }

  private find(name: string): Lying | null {
    const row = this.rows.get(name);
    return row === undefined ? null : fromNumbers(this.places.at(row));
  }

  /** A file that lies in the ZIP as it is, as a part of it: nothing is copied. Null where it is packed. */
  async part(name: string, type = ''): Promise<Blob | null> {
    const entry = this.find(name);
    return entry?.method === STORED ? this.lying(entry, type) : null;
  }

  /**
   * What stands in a file, unpacked, block by block. It ends with an error where it cannot be unpacked; check sums
   * are not looked at.
   * @param isReused a block is good only until the next one is asked for: files of any size are read in the
   * same memory
   */
  async *blocks(name: string, isReused = false): AsyncGenerator<Uint8Array> {
    const entry = this.find(name);
    if (!entry) throw new RangeError(`There is no ${name}.`);
    if (entry.method === DEFLATED && Math.max(entry.packed, entry.size) <= SMALL)
      return yield await this.unpackedAtOnce(entry, isReused);
    const lying = await this.lying(entry);
    if (!lying) throw new RangeError(`${name} cannot be found.`);
    if (entry.method === STORED)
      return yield* (isReused ? reusedBlocksOf : blocksOf)(lying.stream());
    if (entry.method !== DEFLATED) throw new RangeError(`${name} is packed in an unknown way.`);
    yield* inflated(lying.stream());
  }

  /** Thousands of small files would spend their time and memory in streams. */
  private async unpackedAtOnce(entry: Lying, isReused: boolean): Promise<Uint8Array> {
    const from = await this.beginOf(entry);
    if (from === null) throw new RangeError('The file cannot be found.');
    const packed = await this.reader.bytesAt(from, entry.packed);
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
    const bytes = await this.reader.bytesAt(offset, LOCAL_HEAD);
    const head = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
    if (head.byteLength < LOCAL_HEAD || head.getUint32(0, true) !== MARKS.localHead) return null;
    return offset + LOCAL_HEAD + head.getUint16(26, true) + head.getUint16(28, true);
  }
}

/** Packed bytes that are unpacked at a time. */
const PIECE = 16_384;

/**
 * A stream unpacked, a little at a time: a `DecompressionStream` has megabytes waiting in it, and a browser takes them
 * back late.
 */
async function* inflated(packed: ReadableStream<Uint8Array>): AsyncGenerator<Uint8Array> {
  const unpacked: Uint8Array[] = [];
  const inflate = new Inflate((block) => unpacked.push(block));
  for await (const block of reusedBlocksOf(packed))
    for (let at = 0; at < block.length; at += PIECE) {
      inflate.push(block.subarray(at, at + PIECE));
      yield* unpacked.splice(0);
    }
  inflate.push(new Uint8Array(), true);
  yield* unpacked;
}
