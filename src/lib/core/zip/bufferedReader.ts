/** Bytes that are read ahead. */
const WINDOW = 4 << 20;

/**
 * Reads a file in large pieces and gives small ones: of thousands of small files that lie one behind the other,
 * each would else be a question or two to the file system. The same memory is filled again and again: a browser
 * is slow to take back what it gave for pieces of megabytes.
 */
export class BufferedReader {
  private window = new Uint8Array(WINDOW);
  private from = 0;
  private filled = 0;
  /** One reading after the other: they share the window. */
  private last: Promise<unknown> = Promise.resolve();

  constructor(private readonly file: Blob) {}

  get size(): number {
    return this.file.size;
  }

  /** @returns fewer bytes where the file ends before */
  bytesAt(offset: number, length: number): Promise<Uint8Array> {
    const read = () => this.readNext(offset, Math.min(offset + length, this.size));
    const bytes = this.last.then(read, read);
    this.last = bytes;
    return bytes;
  }

  private async readNext(offset: number, end: number): Promise<Uint8Array> {
    if (end <= offset) return new Uint8Array();
    if (end - offset > WINDOW)
      return new Uint8Array(await this.file.slice(offset, end).arrayBuffer());
    if (offset < this.from || end > this.from + this.filled) await this.moveTo(offset);
    return this.window.slice(offset - this.from, end - this.from);
  }

  private async moveTo(offset: number): Promise<void> {
    this.filled = 0;
    this.from = offset;
    const piece = this.file.slice(offset, offset + WINDOW);
    const reader = piece.stream().getReader({ mode: 'byob' });
    while (this.filled < piece.size) {
      const { value, done } = await reader.read(this.window.subarray(this.filled));
      if (value) this.window = new Uint8Array(value.buffer);
      if (done) return;
      this.filled += value.length;
    }
  }
}
