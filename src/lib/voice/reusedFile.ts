import { File, OpenFile } from '@bjorn3/browser_wasi_shim';

/**
 * A file in memory that is written anew again and again. The shim's own makes itself anew with every
 * kilobyte that comes, which leaves megabytes behind for each sentence.
 */
export class ReusedFile extends File {
  #length = 0;

  /** @param room bytes that are taken at first; more when they are needed */
  constructor(room: number) {
    super(new Uint8Array(room));
  }

  /** What was written since it was opened last; valid until it is opened again. */
  get written(): Uint8Array {
    return this.data.subarray(0, this.#length);
  }

  empty(): void {
    this.#length = 0;
  }

  override path_open(): { ret: number; fd_obj: OpenFile } {
    this.empty();
    return { ret: 0, fd_obj: new Opened(this, (end) => this.#reach(end)) };
  }

  #reach(end: number): void {
    this.#length = Math.max(this.#length, end);
    if (end <= this.data.length) return;
    const larger = new Uint8Array(2 * end);
    larger.set(this.data);
    this.data = larger;
  }
}

class Opened extends OpenFile {
  constructor(
    file: File,
    private readonly reach: (end: number) => void
  ) {
    super(file);
  }

  override fd_write(data: Uint8Array): { ret: number; nwritten: number } {
    this.reach(Number(this.file_pos) + data.byteLength);
    return super.fd_write(data);
  }
}
