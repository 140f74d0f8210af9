import type { OpenZip } from '../zip/read.ts';
import type { ArchiveFile } from './manifest.ts';

/** Bytes of a SHA-256. */
const HASH = 32;

/** What a manifest says of the files of an archive: of tens of thousands as numbers, without an object of each. */
export class ListedFiles {
  private readonly bytes: Float64Array;
  private readonly hashes: Uint8Array;
  private readonly missing = new Map<string, ArchiveFile>();

  constructor(private readonly zip: Pick<OpenZip, 'rowOf' | 'names' | 'count'>) {
    this.bytes = new Float64Array(zip.count).fill(-1);
    this.hashes = new Uint8Array(zip.count * HASH);
  }

  add(file: ArchiveFile): void {
    const row = this.zip.rowOf(file.name);
    if (row === undefined) {
      this.missing.set(file.name, file);
      return;
    }
    this.bytes[row] = file.bytes;
    for (let i = 0; i < HASH; i++)
      this.hashes[row * HASH + i] = parseInt(file.sha256.slice(2 * i, 2 * i + 2), 16);
  }

  /** Bytes of a file as it is; null where it is not listed. */
  bytesOf(name: string): number | null {
    const row = this.zip.rowOf(name);
    if (row === undefined) return this.missing.get(name)?.bytes ?? null;
    const bytes = this.bytes[row]!;
    return bytes < 0 ? null : bytes;
  }

  /** First those that are in the archive. */
  *all(): Generator<ArchiveFile> {
    for (const name of this.zip.names()) {
      const bytes = this.bytesOf(name);
      if (bytes !== null) yield { name, bytes, sha256: this.hashOf(this.zip.rowOf(name)!) };
    }
    yield* this.missing.values();
  }

  private hashOf(row: number): string {
    return Array.from(this.hashes.subarray(row * HASH, (row + 1) * HASH), (byte) =>
      byte.toString(16).padStart(2, '0')
    ).join('');
  }
}
