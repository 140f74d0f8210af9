import type { Box } from '$lib/core/narration/frames.ts';

/** As it is said of high definition: limited range, by the coefficients of ITU-R BT.709. */
export const COLOUR_SPACE = {
  primaries: 'bt709',
  transfer: 'bt709',
  matrix: 'bt709',
  fullRange: false
} as const;

/** Coefficients of BT.709 for 8 bits of limited range, as whole numbers of 1/65536. */
const ONE = 65536;
const share = (value: number, range: number) => Math.round((value * range * ONE) / 255);
const YR = share(0.2126, 219);
const YG = share(0.7152, 219);
const YB = share(0.0722, 219);
const UR = share(-0.1146, 224);
const UG = share(-0.3854, 224);
const UB = share(0.5, 224);
const VR = share(0.5, 224);
const VG = share(-0.4542, 224);
const VB = share(-0.0458, 224);
const LUMA_ZERO = 16 * ONE + ONE / 2;
const CHROMA_ZERO = 128 * ONE + ONE / 2;

/**
 * A frame as encoders want it (I420: luma, and both chroma planes at half their size), of which only what
 * changed is converted anew. The browser would read back and convert all of it for every frame.
 */
export class Planes {
  readonly data: Uint8Array<ArrayBuffer>;
  readonly #half: number;
  readonly #u: number;
  readonly #v: number;

  /** @param width and height: pixels, both even */
  constructor(
    readonly width: number,
    readonly height: number
  ) {
    this.#half = width / 2;
    this.#u = width * height;
    this.#v = this.#u + this.#half * (height / 2);
    this.data = new Uint8Array((width * height * 3) / 2);
  }

  /** A box of whole pairs of pixels that holds another. */
  even({ x, y, width, height }: Box): Box {
    const left = Math.max(0, Math.floor(x / 2) * 2);
    const top = Math.max(0, Math.floor(y / 2) * 2);
    return {
      x: left,
      y: top,
      width: Math.min(this.width, Math.ceil((x + width) / 2) * 2) - left,
      height: Math.min(this.height, Math.ceil((y + height) / 2) * 2) - top
    };
  }

  /**
   * Takes over a part of a picture.
   * @param pixels RGBA, opaque, of an even box
   */
  put(pixels: ImageData, { x: left, y: top }: Box): void {
    const to = this.data;
    const { width } = this;
    const [u, v] = [this.#u, this.#v];
    // Signed: larger numbers would be kept as fractions, at several times the cost.
    const rgba = new Int32Array(pixels.data.buffer);
    const [wide, high] = [pixels.width, pixels.height];
    // Grounds are of one colour, and most of a card is ground: a block like the last one is known.
    let plain = 0;
    let [plainY, plainU, plainV] = [0, 0, 0];
    for (let row = 0; row < high; row += 2) {
      let at = row * wide;
      let luma = (top + row) * width + left;
      let chroma = ((top + row) >> 1) * this.#half + (left >> 1);
      for (const end = at + wide; at < end; at += 2, luma += 2, chroma++) {
        const a = rgba[at]!;
        const b = rgba[at + 1]!;
        const c = rgba[at + wide]!;
        const d = rgba[at + wide + 1]!;
        if (a === b && a === c && a === d) {
          if (a !== plain) {
            plain = a;
            const [red, green, blue] = [a & 255, (a >> 8) & 255, (a >> 16) & 255];
            plainY = (YR * red + YG * green + YB * blue + LUMA_ZERO) >> 16;
            plainU = (UR * red + UG * green + UB * blue + CHROMA_ZERO) >> 16;
            plainV = (VR * red + VG * green + VB * blue + CHROMA_ZERO) >> 16;
          }
          to[luma] = plainY;
          to[luma + 1] = plainY;
          to[luma + width] = plainY;
          to[luma + width + 1] = plainY;
          to[u + chroma] = plainU;
          to[v + chroma] = plainV;
          continue;
        }
        to[luma] = lumaOf(a);
        to[luma + 1] = lumaOf(b);
        to[luma + width] = lumaOf(c);
        to[luma + width + 1] = lumaOf(d);
        // Red and blue of four pixels at once, then green: sums of four fit beside each other.
        const redBlue = (a & 0xff00ff) + (b & 0xff00ff) + (c & 0xff00ff) + (d & 0xff00ff);
        const green =
          (((a >> 8) & 255) + ((b >> 8) & 255) + ((c >> 8) & 255) + ((d >> 8) & 255) + 2) >> 2;
        const red = ((redBlue & 0xffff) + 2) >> 2;
        const blue = ((redBlue >>> 16) + 2) >> 2;
        to[u + chroma] = (UR * red + UG * green + UB * blue + CHROMA_ZERO) >> 16;
        to[v + chroma] = (VR * red + VG * green + VB * blue + CHROMA_ZERO) >> 16;
      }
    }
  }
}

const lumaOf = (rgba: number): number =>
  (YR * (rgba & 255) + YG * ((rgba >> 8) & 255) + YB * ((rgba >> 16) & 255) + LUMA_ZERO) >> 16;
