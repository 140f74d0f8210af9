import type { Box } from '$lib/core/narration/frames.ts';

/** As it is said of high definition: limited range, by the coefficients of ITU-R BT.709. */
export const COLOUR_SPACE = {
  primaries: 'bt709',
  transfer: 'bt709',
  matrix: 'bt709',
  fullRange: false
} as const;

/** Pixels in a row that are converted at a time. */
const STEP = 8;
const PAGE = 65_536;

type Convert = (
  pixels: number,
  frameWidth: number,
  frameHeight: number,
  left: number,
  top: number,
  width: number,
  height: number,
  isBlueFirst: boolean
) => void;

/**
 * A frame as encoders want it (I420: luma, and both chroma planes at half their size), of which only what
 * changed is converted anew. The browser would convert all of it for every frame.
 */
export class Planes {
  readonly data: Uint8Array<ArrayBuffer>;
  readonly #memory: WebAssembly.Memory;
  readonly #convert: Convert;
  readonly #pixelsAt: number;

  /**
   * @param program `planes.wasm`
   * @param width pixels, a multiple of eight; the height is even
   */
  constructor(
    program: WebAssembly.Module,
    readonly width: number,
    readonly height: number
  ) {
    if (width % STEP !== 0 || height % 2 !== 0)
      throw new RangeError(`A frame of ${width} by ${height} pixels cannot be converted.`);
    const planes = (width * height * 3) / 2;
    this.#pixelsAt = Math.ceil(planes / 16) * 16;
    const initial = Math.ceil((this.#pixelsAt + width * height * 4) / PAGE);
    this.#memory = new WebAssembly.Memory({ initial });
    const instance = new WebAssembly.Instance(program, { env: { memory: this.#memory } });
    this.#convert = instance.exports['convert'] as Convert;
    this.data = new Uint8Array(this.#memory.buffer, 0, planes);
  }

  /** The smallest box that can be converted and holds another. */
  around({ x, y, width, height }: Box): Box {
    const left = Math.max(0, Math.floor(x / STEP) * STEP);
    const top = Math.max(0, Math.floor(y / 2) * 2);
    return {
      x: left,
      y: top,
      width: Math.min(this.width, Math.ceil((x + width) / STEP) * STEP) - left,
      height: Math.min(this.height, Math.ceil((y + height) / 2) * 2) - top
    };
  }

  /** Where the pixels of a box are to be written: four bytes each, row after row. */
  pixelsOf({ width, height }: Box): Uint8Array<ArrayBuffer> {
    return new Uint8Array(this.#memory.buffer, this.#pixelsAt, width * height * 4);
  }

  /**
   * Takes over the pixels of a box, which were written before.
   * @param isBlueFirst whether their bytes are blue, green, red, or red, green, blue; the fourth is passed over
   */
  put({ x, y, width, height }: Box, isBlueFirst: boolean): void {
    this.#convert(this.#pixelsAt, this.width, this.height, x, y, width, height, isBlueFirst);
  }
}
