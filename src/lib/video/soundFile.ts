import { SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import { openToReadAndWrite } from './files.ts';

/** Samples of each channel that are written and read at a time: small pieces take a file many times as long. */
const STRETCH = 10 * SAMPLE_RATE;
/** Samples of each channel that are given at a time. */
const BLOCK = SAMPLE_RATE;

/** Sound written down while it is mixed, and read again piece by piece. Workers only. */
export class SoundFile {
  readonly #filling: Float32Array<ArrayBuffer>[];
  #filled = 0;
  /** Samples of each channel that are in the file. */
  #written = 0;

  private constructor(
    private readonly handle: FileSystemSyncAccessHandle,
    readonly channels: number
  ) {
    this.#filling = Array.from({ length: channels }, () => new Float32Array(STRETCH));
  }

  static async open(name: string, channels: number): Promise<SoundFile> {
    const handle = await openToReadAndWrite(name);
    handle.truncate(0);
    return new SoundFile(handle, channels);
  }

  /** @param block one array for each channel, at most a stretch long */
  append(block: readonly Float32Array[]): void {
    const length = block[0]?.length ?? 0;
    const fits = Math.min(length, STRETCH - this.#filled);
    this.#take(block, 0, fits);
    if (this.#filled === STRETCH) this.#write();
    if (fits < length) this.#take(block, fits, length);
  }

  #take(block: readonly Float32Array[], from: number, to: number): void {
    for (const [c, filling] of this.#filling.entries())
      filling.set((block[c] ?? block[0]!).subarray(from, to), this.#filled);
    this.#filled += to - from;
  }

  #write(): void {
    const bytes = this.#filled * Float32Array.BYTES_PER_ELEMENT;
    let at = this.#written * this.channels * Float32Array.BYTES_PER_ELEMENT;
    for (const filling of this.#filling) {
      this.handle.write(filling.subarray(0, this.#filled), { at });
      at += bytes;
    }
    this.#written += this.#filled;
    this.#filled = 0;
  }

  /**
   * The sound from its beginning, in blocks that share their memory: what is to be kept is copied.
   * @param every one of so many stretches is given, the others are passed over
   */
  async *blocks(every = 1): AsyncGenerator<Float32Array[]> {
    const memory = Array.from({ length: this.channels }, () => new Float32Array(STRETCH));
    for (let at = 0; at < this.#written; at += STRETCH * every) {
      const length = Math.min(STRETCH, this.#written - at);
      for (const [c, channel] of memory.entries()) {
        const from = (at * this.channels + c * length) * Float32Array.BYTES_PER_ELEMENT;
        this.handle.read(channel.subarray(0, length), { at: from });
      }
      yield* blocksOf(memory, length);
    }
    if ((this.#written / STRETCH) % every === 0) yield* blocksOf(this.#filling, this.#filled);
  }

  close(): void {
    this.handle.truncate(0);
    this.handle.close();
  }
}

function* blocksOf(channels: readonly Float32Array[], length: number): Generator<Float32Array[]> {
  for (let at = 0; at < length; at += BLOCK)
    yield channels.map((channel) => channel.subarray(at, Math.min(length, at + BLOCK)));
}
