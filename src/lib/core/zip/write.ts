import crc32 from 'crc-32';
import { deflateSync } from 'fflate';
import { blocksOf } from './blocks.ts';
import { gatheringInto } from './gather.ts';
import {
  dataDescriptor,
  DEFLATED,
  directoryRecord,
  endOfDirectory,
  FULL,
  localHead,
  STORED,
  type ZipEntry
} from './records.ts';

/** A ZIP that is being written. */
export interface Zip {
  /** Adds a file: text is packed, what is packed by itself lies in it as it is. */
  add(
    name: string,
    content: Uint8Array | ReadableStream<Uint8Array>,
    options?: { isPacked?: boolean; size?: number }
  ): Promise<void>;
  /** Writes the list of files, and closes the stream. */
  close(): Promise<void>;
  abort(reason: unknown): Promise<void>;
}

/**
 * Begins a ZIP as a stream (PKWARE APPNOTE, with ZIP64 where it is needed). Of each file only its line of the
 * directory stays in memory: there may be hundreds of thousands.
 * @param modified the time that all files in it get
 */
export function beginZip(
  to: WritableStream<Uint8Array>,
  modified: Date,
  signal?: AbortSignal
): Zip {
  const out = gatheringInto(to).getWriter();
  const directory: Uint8Array[] = [];
  let offset = 0;
  const write = async (bytes: Uint8Array) => {
    signal?.throwIfAborted();
    offset += bytes.length;
    await out.write(bytes);
  };

  const addWhole = async (entry: ZipEntry, content: Uint8Array) => {
    const packed = entry.method === STORED ? content : deflateSync(content);
    entry.crc32 = crc32.buf(content) >>> 0;
    entry.packed = packed.length;
    entry.size = content.length;
    await write(localHead(entry));
    await write(packed);
  };
  const addStream = async (entry: ZipEntry, content: ReadableStream<Uint8Array>) => {
    await write(localHead(entry));
    const began = offset;
    let sum = 0;
    const count = (block: Uint8Array) => {
      sum = crc32.buf(block, sum);
      entry.size += block.length;
    };
    if (entry.method === STORED)
      for await (const block of blocksOf(content)) {
        count(block);
        await write(block);
      }
    else for await (const block of blocksOf(deflated(content, count))) await write(block);
    entry.crc32 = sum >>> 0;
    entry.packed = offset - began;
    if (!entry.isLarge && Math.max(entry.packed, entry.size) >= FULL)
      throw new RangeError('The file is longer than it was said to be.');
    await write(dataDescriptor(entry));
  };

  return {
    async add(name, content, { isPacked = false, size = Infinity } = {}) {
      const isStreamed = !(content instanceof Uint8Array);
      const entry: ZipEntry = {
        name: new TextEncoder().encode(name),
        method: isPacked ? STORED : DEFLATED,
        modified,
        isStreamed,
        isLarge: isStreamed && size >= FULL,
        crc32: 0,
        packed: 0,
        size: 0,
        offset
      };
      if (content instanceof Uint8Array) await addWhole(entry, content);
      else await addStream(entry, content);
      directory.push(directoryRecord(entry));
    },
    async close() {
      const began = offset;
      for (const record of directory) await write(record);
      await write(endOfDirectory(directory.length, offset - began, began));
      await out.close();
    },
    abort: (reason) => out.abort(reason).catch(() => {})
  };
}

/** A stream packed, block by block as it comes. @param told each block before it is packed */
function deflated(
  content: ReadableStream<Uint8Array>,
  told: (block: Uint8Array) => void
): ReadableStream<Uint8Array> {
  const tap = new TransformStream<Uint8Array, Uint8Array<ArrayBuffer>>({
    transform(block, controller) {
      told(block);
      controller.enqueue(block as Uint8Array<ArrayBuffer>);
    }
  });
  return content.pipeThrough(tap).pipeThrough(new CompressionStream('deflate-raw'));
}

/** Writes files into a ZIP as a stream; it is aborted where one of them fails. */
export async function writeZip(
  to: WritableStream<Uint8Array>,
  files: Iterable<{ name: string; content: Blob | string }>,
  modified: Date,
  signal?: AbortSignal
): Promise<void> {
  const zip = beginZip(to, modified, signal);
  try {
    for (const { name, content } of files) {
      if (typeof content === 'string') await zip.add(name, new TextEncoder().encode(content));
      else await zip.add(name, content.stream(), { isPacked: true, size: content.size });
    }
    await zip.close();
  } catch (error) {
    await zip.abort(error);
    throw error;
  }
}
