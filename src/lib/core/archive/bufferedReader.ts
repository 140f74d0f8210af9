import { Reader } from '@zip.js/zip.js/lib/zip-core-native.js';

/** Bytes that are read ahead. */
const WINDOW = 4 << 20;

/**
 * Reads a file in large pieces and gives small ones: of thousands of small files that lie one behind the other,
 * each would else be a question or two to the file system.
 */
export class BufferedReader extends Reader<Blob> {
  private window = new Uint8Array();
  private from = 0;

  constructor(private readonly file: Blob) {
    super(file);
    this.size = file.size;
  }

  override async readUint8Array(offset: number, length: number): Promise<Uint8Array> {
    const end = Math.min(offset + length, this.size);
    if (offset < this.from || end > this.from + this.window.length) {
      if (end - offset >= WINDOW) return this.read(offset, end);
      this.window = await this.read(offset, Math.min(offset + WINDOW, this.size));
      this.from = offset;
    }
    return this.window.slice(offset - this.from, end - this.from);
  }

  private async read(from: number, end: number): Promise<Uint8Array<ArrayBuffer>> {
    return new Uint8Array(await this.file.slice(from, end).arrayBuffer());
  }
}
