import crc32 from 'crc-32';
import { Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js/lib/zip-core-native.js';
import { deflateSync } from 'fflate';

import { gatheringInto } from './gather.ts';

/** How ZIP calls it (APPNOTE.TXT 4.4.5). */
const DEFLATE = 8;

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
 * Begins a ZIP as a stream (PKWARE APPNOTE, with ZIP64 where it is needed).
 * @param modified the time that all files in it get
 */
export function beginZip(
  to: WritableStream<Uint8Array>,
  modified: Date,
  signal?: AbortSignal
): Zip {
  const out = gatheringInto(to);
  const zip = new ZipWriter(out, {
    lastModDate: modified,
    extendedTimestamp: false,
    useWebWorkers: false,
    preventClose: true,
    ...(signal ? { signal } : {})
  });
  return {
    async add(name, content, { isPacked = false, size } = {}) {
      if (content instanceof Uint8Array) {
        // Thousands of small files would spend their time and memory in streams.
        await zip.add(name, new Uint8ArrayReader(deflateSync(content)), {
          passThrough: true,
          compressionMethod: DEFLATE,
          uncompressedSize: content.length,
          crc32: crc32.buf(content) >>> 0
        });
        return;
      }
      const how = isPacked ? { level: 0 } : {};
      await zip.add(name, content, size === undefined ? how : { ...how, uncompressedSize: size });
    },
    async close() {
      await zip.close();
      await out.close();
    },
    abort: (reason) => out.abort(reason).catch(() => {})
  };
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
      signal?.throwIfAborted();
      if (typeof content === 'string') await zip.add(name, new TextEncoder().encode(content));
      else await zip.add(name, content.stream(), { isPacked: true, size: content.size });
    }
    await zip.close();
  } catch (error) {
    await zip.abort(error);
    throw error;
  }
}
