import type { BufferedReader } from './bufferedReader.ts';
import { FULL, FULL_COUNT, IS_ENCRYPTED, MARKS, ZIP64_FIELD } from './records.ts';

/** Where a file lies in a ZIP, and how. */
export interface Lying {
  /** Bytes before its head. */
  offset: number;
  method: number;
  isEncrypted: boolean;
  /** Bytes as it lies in it, and as it is. */
  packed: number;
  size: number;
  crc32: number;
}

/** Bytes of the records without what is of any length in them (APPNOTE 4.3.12 to 4.3.16). */
const [RECORD, END, END64, LOCATOR64] = [46, 22, 56, 20];
const LONGEST_COMMENT = 65_535;

/**
 * The directory of a ZIP, one file after the other; folders are left out.
 * @throws RangeError where there is none, or something else stands in its place
 */
export async function* readDirectory(
  reader: BufferedReader
): AsyncGenerator<{ name: string; lying: Lying }> {
  const { count, offset } = await endOf(reader);
  const decoder = new TextDecoder();
  let at = offset;
  for (let i = 0; i < count; i++) {
    const record = await viewOf(reader, at, RECORD, MARKS.record);
    const [ofName, ofExtra, ofComment] = [28, 30, 32].map((place) => record.getUint16(place, true));
    const rest = await reader.bytesAt(at + RECORD, ofName! + ofExtra!);
    const name = decoder.decode(rest.subarray(0, ofName));
    if (!name.endsWith('/')) yield { name, lying: lyingOf(record, rest.subarray(ofName)) };
    at += RECORD + ofName! + ofExtra! + ofComment!;
  }
}

/** How many files the directory tells of, and where it begins. */
async function endOf(reader: BufferedReader): Promise<{ count: number; offset: number }> {
  const begin = Math.max(0, reader.size - END - LONGEST_COMMENT);
  const tail = view(await reader.bytesAt(begin, reader.size - begin));
  let at = tail.byteLength - END;
  while (at >= 0 && tail.getUint32(at, true) !== MARKS.end) at--;
  if (at < 0) throw new RangeError('There is no directory.');
  const count = tail.getUint16(at + 10, true);
  const size = tail.getUint32(at + 12, true);
  const offset = tail.getUint32(at + 16, true);
  if (count < FULL_COUNT && size < FULL && offset < FULL) return { count, offset };
  const locator = await viewOf(reader, begin + at - LOCATOR64, LOCATOR64, MARKS.locator64);
  const end = await viewOf(reader, u64(locator, 8), END64, MARKS.end64);
  return { count: u64(end, 32), offset: u64(end, 48) };
}

function lyingOf(record: DataView, extra: Uint8Array): Lying {
  const large = zip64Of(view(extra));
  const number = (place: number): number => {
    const short = record.getUint32(place, true);
    return short === FULL ? (large.next().value ?? short) : short;
  };
  // In the order in which ZIP64 has them (4.5.3).
  const size = number(24);
  const packed = number(20);
  const offset = number(42);
  const isEncrypted = (record.getUint16(8, true) & IS_ENCRYPTED) !== 0;
  const [method, crc32] = [record.getUint16(10, true), record.getUint32(16, true)];
  return { offset, method, isEncrypted, packed, size, crc32 };
}

/** The numbers of the ZIP64 field, one after the other. */
function* zip64Of(extra: DataView): Generator<number, undefined> {
  for (let at = 0; at + 4 <= extra.byteLength; at += 4 + extra.getUint16(at + 2, true)) {
    if (extra.getUint16(at, true) !== ZIP64_FIELD) continue;
    const end = Math.min(extra.byteLength, at + 4 + extra.getUint16(at + 2, true));
    for (let place = at + 4; place + 8 <= end; place += 8) yield u64(extra, place);
    return;
  }
}

/** @throws RangeError where a record does not begin as it has to, or the file ends in it */
async function viewOf(
  reader: BufferedReader,
  offset: number,
  length: number,
  mark: number
): Promise<DataView> {
  const bytes = view(await reader.bytesAt(offset, length));
  if (bytes.byteLength < length || bytes.getUint32(0, true) !== mark)
    throw new RangeError('Something else stands where a record should be.');
  return bytes;
}

const view = ({ buffer, byteOffset, length }: Uint8Array): DataView =>
  new DataView(buffer, byteOffset, length);
const u64 = (bytes: DataView, at: number): number => Number(bytes.getBigUint64(at, true));
