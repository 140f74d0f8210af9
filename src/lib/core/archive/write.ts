import { createSHA256 } from 'hash-wasm';
import { beginZip } from '../zip/write.ts';
import { textStream } from './lines.ts';
import {
  ARCHIVE_VERSION,
  MANIFEST,
  type ArchiveFile,
  type Manifest,
  type ManifestHead
} from './manifest.ts';

/** A file that goes into an archive: media lie in it as they are, text is packed. A short text comes whole. */
export interface ArchivePart {
  name: string;
  content: Blob | AsyncIterable<string> | string;
}

/** What an archive says of itself beside its files. `tables` is read when all parts are written. */
export type ArchiveHead = Pick<ManifestHead, 'schema' | 'made' | 'tables'>;

/** Is told the name of the file that is written, and the bytes that were written of all files. */
export type ArchiveReport = (name: string, bytes: number) => void;

/**
 * Writes an archive as a stream: never more than a block of it lies in memory. The stream is closed
 * at the end, and aborted when it fails.
 * @param parts each is written before the next one is asked for
 * @returns bytes of all files before they were packed
 */
export async function writeArchive(
  to: WritableStream<Uint8Array>,
  parts: AsyncIterable<ArchivePart>,
  head: ArchiveHead,
  { signal, report }: { signal?: AbortSignal; report?: ArchiveReport } = {}
): Promise<number> {
  const zip = beginZip(to, new Date(head.made), signal);
  const hash = await createSHA256();
  const files: ArchiveFile[] = [];
  let total = 0;
  const add = async (name: string, content: ArchivePart['content']): Promise<number> => {
    if (typeof content === 'string') {
      // Thousands of these would spend most of their time in streams.
      const whole = new TextEncoder().encode(content);
      hash.update(whole);
      report?.(name, total + whole.length);
      await zip.add(name, whole);
      return whole.length;
    }
    let bytes = 0;
    const count = new TransformStream<Uint8Array, Uint8Array>({
      transform(block, controller) {
        hash.update(block);
        bytes += block.length;
        report?.(name, total + bytes);
        controller.enqueue(block);
      }
    });
    const isMedia = content instanceof Blob;
    const source = isMedia ? content.stream() : textStream(content);
    const how = isMedia ? { isPacked: true, size: content.size } : {};
    await zip.add(name, source.pipeThrough(count), how);
    return bytes;
  };
  try {
    for await (const { name, content } of parts) {
      signal?.throwIfAborted();
      hash.init();
      const bytes = await add(name, content);
      files.push({ name, bytes, sha256: hash.digest() });
      total += bytes;
    }
    const manifest: Manifest = {
      format: 'swift-twin-archive',
      version: ARCHIVE_VERSION,
      ...head,
      files
    };
    await zip.add(
      MANIFEST,
      new TextEncoder().encode(`${JSON.stringify(manifest, null, 1)}
`)
    );
    await zip.close();
    return total;
  } catch (error) {
    await zip.abort(error);
    throw error;
  }
}
