/** The records of a ZIP (PKWARE APPNOTE 6.3.10, chapters 4.3 to 4.5), as bytes. */

/** How a file is packed (4.4.5). */
export const STORED = 0;
export const DEFLATED = 8;

/** A file in a ZIP. */
export interface ZipEntry {
  /** UTF-8. */
  name: Uint8Array;
  method: typeof STORED | typeof DEFLATED;
  modified: Date;
  /** Whether its sizes and its check sum come behind it, and its head was written without them. */
  isStreamed: boolean;
  /** Whether they take 64 bits there (ZIP64). */
  isLarge: boolean;
  crc32: number;
  /** Bytes as it lies in the ZIP, and as it is. */
  packed: number;
  size: number;
  /** Bytes before its head. */
  offset: number;
}

/** Instead of a number that 32 or 16 bits do not hold: it stands in a field or a record of ZIP64. */
export const FULL = 0xffffffff;
export const FULL_COUNT = 0xffff;
/** Versions that are needed to read files as usual, and those of ZIP64 (4.4.3). */
const [USUAL, ZIP64] = [20, 45];
/** Sizes stand behind the file; names are UTF-8 (4.4.4). */
const [SIZES_BEHIND, IS_UTF8] = [0x8, 0x800];
export const IS_ENCRYPTED = 1;
export const ZIP64_FIELD = 1;

/** What each record begins with. */
export const MARKS = {
  localHead: 0x04034b50,
  dataDescriptor: 0x08074b50,
  record: 0x02014b50,
  end64: 0x06064b50,
  locator64: 0x07064b50,
  end: 0x06054b50
};
/** Bytes of the head before a file, without its name and what follows that. */
export const LOCAL_HEAD = 30;

/** Before a file. */
export function localHead(entry: ZipEntry): Uint8Array {
  const { isStreamed, isLarge, name } = entry;
  const sizes = isLarge ? [FULL, FULL] : isStreamed ? [0, 0] : [entry.packed, entry.size];
  const extra = isLarge ? new Fields().u16(ZIP64_FIELD).u16(16).u64(0).u64(0).bytes() : NOTHING;
  return howItLies(new Fields().u32(MARKS.localHead), entry, isLarge)
    .u32(isStreamed ? 0 : entry.crc32)
    .u32(...sizes)
    .u16(name.length, extra.length)
    .append(name, extra)
    .bytes();
}

/** Behind a file that was streamed. */
export function dataDescriptor({ crc32, packed, size, isLarge }: ZipEntry): Uint8Array {
  const fields = new Fields().u32(MARKS.dataDescriptor, crc32);
  return (isLarge ? fields.u64(packed, size) : fields.u32(packed, size)).bytes();
}

/** In the directory at the end. */
export function directoryRecord(entry: ZipEntry): Uint8Array {
  const { name, packed, size, offset } = entry;
  const large = [size, packed, offset].filter((number) => number >= FULL);
  const field = new Fields().u16(ZIP64_FIELD, large.length * 8).u64(...large);
  const extra = large.length > 0 ? field.bytes() : NOTHING;
  const head = new Fields().u32(MARKS.record).u16(ZIP64);
  return howItLies(head, entry, entry.isLarge || large.length > 0)
    .u32(entry.crc32, Math.min(packed, FULL), Math.min(size, FULL))
    .u16(name.length, extra.length, 0, 0, 0)
    .u32(0, Math.min(offset, FULL))
    .append(name, extra)
    .bytes();
}

/**
 * Behind the directory.
 * @param count of files
 * @param size of the directory, in bytes
 * @param offset bytes before the directory
 */
export function endOfDirectory(count: number, size: number, offset: number): Uint8Array {
  const fields = new Fields();
  if (count >= FULL_COUNT || size >= FULL || offset >= FULL)
    fields
      .u32(MARKS.end64)
      .u64(44)
      .u16(ZIP64, ZIP64)
      .u32(0, 0)
      .u64(count, count, size, offset)
      .u32(MARKS.locator64, 0)
      .u64(offset + size)
      .u32(1);
  const least = Math.min(count, FULL_COUNT);
  return fields
    .u32(MARKS.end)
    .u16(0, 0, least, least)
    .u32(Math.min(size, FULL), Math.min(offset, FULL))
    .u16(0)
    .bytes();
}

/** What a head and a record of the directory have in common: version, flags, method and time. */
function howItLies(
  fields: Fields,
  { method, modified, isStreamed }: ZipEntry,
  isZip64: boolean
): Fields {
  const flags = IS_UTF8 | (isStreamed ? SIZES_BEHIND : 0);
  return fields.u16(isZip64 ? ZIP64 : USUAL, flags, method, ...dosTime(modified));
}

/** Time and date as MS-DOS has them (4.4.6): local, of every other second, from 1980 on. */
function dosTime(date: Date): [time: number, date: number] {
  const year = date.getFullYear() - 1980;
  if (year < 0) return [0, (1 << 5) | 1];
  return [
    (date.getHours() << 11) | (date.getMinutes() << 5) | (date.getSeconds() >> 1),
    (Math.min(year, 127) << 9) | ((date.getMonth() + 1) << 5) | date.getDate()
  ];
}

const NOTHING = new Uint8Array();

/** Numbers one after the other, least byte first. */
class Fields {
  readonly #bytes: number[] = [];

  u16(...numbers: number[]): this {
    for (const n of numbers) this.#bytes.push(n & 0xff, (n >>> 8) & 0xff);
    return this;
  }
  u32(...numbers: number[]): this {
    for (const n of numbers) this.u16(n & 0xffff, n >>> 16);
    return this;
  }
  u64(...numbers: number[]): this {
    for (const n of numbers) this.u32(n % 2 ** 32, Math.floor(n / 2 ** 32));
    return this;
  }
  append(...parts: Uint8Array[]): this {
    for (const part of parts) this.#bytes.push(...part);
    return this;
  }
  bytes(): Uint8Array {
    return Uint8Array.from(this.#bytes);
  }
}
