// AssemblyScript: `npm run build:assembly` makes src/lib/video/planes.wasm of it. By hand, when this file
// changes: the compiler is a hundred megabytes that nobody else needs.

/** Coefficients of ITU-R BT.709 for 8 bits of limited range, as whole numbers of 1/32768. */
const YR: i16 = 5983;
const YG: i16 = 20127;
const YB: i16 = 2032;
const UR: i16 = -3299;
const UG: i16 = -11094;
const UB: i16 = 14392;
const VR: i16 = 14392;
const VG: i16 = -13074;
const VB: i16 = -1318;
const LUMA_ZERO: i32 = (16 << 15) + (1 << 14);
// Sums of four pixels, so two bits more.
const CHROMA_ZERO: i32 = (128 << 17) + (1 << 16);

/** Weights of the four bytes of a pixel, twice; pixels are red or blue first. */
function weights(red: i16, green: i16, blue: i16, isBlueFirst: bool): v128 {
  const first = isBlueFirst ? blue : red;
  const third = isBlueFirst ? red : blue;
  let w = i16x8.splat(0);
  w = i16x8.replace_lane(w, 0, first);
  w = i16x8.replace_lane(w, 1, green);
  w = i16x8.replace_lane(w, 2, third);
  w = i16x8.replace_lane(w, 4, first);
  w = i16x8.replace_lane(w, 5, green);
  return i16x8.replace_lane(w, 6, third);
}

/** Weighted sums of four pixels, two in each of the vectors. */
function weighted(two: v128, more: v128, w: v128): v128 {
  const a = i32x4.dot_i16x8_s(two, w);
  const b = i32x4.dot_i16x8_s(more, w);
  return i32x4.add(v128.shuffle<i32>(a, b, 0, 2, 4, 6), v128.shuffle<i32>(a, b, 1, 3, 5, 7));
}

/** Luma of four pixels, each of four bytes. */
function luma(pixels: v128, w: v128): v128 {
  const sums = weighted(i16x8.extend_low_i8x16_u(pixels), i16x8.extend_high_i8x16_u(pixels), w);
  return i32x4.shr_s(i32x4.add(sums, i32x4.splat(LUMA_ZERO)), 15);
}

/** Bytes of eight numbers in the lower half. */
function bytes(first: v128, second: v128): v128 {
  const words = i16x8.narrow_i32x4_s(first, second);
  return i8x16.narrow_i16x8_u(words, words);
}

/** Two blocks of two by two pixels, summed; of two rows of four pixels. */
function blocks(upper: v128, lower: v128): v128 {
  const left = i16x8.add(i16x8.extend_low_i8x16_u(upper), i16x8.extend_low_i8x16_u(lower));
  const right = i16x8.add(i16x8.extend_high_i8x16_u(upper), i16x8.extend_high_i8x16_u(lower));
  return i16x8.add(v128.shuffle<i64>(left, right, 0, 2), v128.shuffle<i64>(left, right, 1, 3));
}

/**
 * Converts a box of pixels into its place in the planes of a frame (I420), eight by two at a time. Planes
 * begin at address 0: luma, then both chroma planes.
 * @param pixels address of the first of the box, four bytes each, row after row without gaps
 * @param left and width: multiples of eight; `top` and `height` are even, as are both sides of the frame
 */
export function convert(
  pixels: usize,
  frameWidth: u32,
  frameHeight: u32,
  left: u32,
  top: u32,
  width: u32,
  height: u32,
  isBlueFirst: bool
): void {
  const wy = weights(YR, YG, YB, isBlueFirst);
  const wu = weights(UR, UG, UB, isBlueFirst);
  const wv = weights(VR, VG, VB, isBlueFirst);
  const stride: usize = width * 4;
  const u: usize = frameWidth * frameHeight;
  const v: usize = u + u / 4;
  for (let row: u32 = 0; row < height; row += 2) {
    let from: usize = pixels + <usize>row * stride;
    let y: usize = (top + row) * frameWidth + left;
    let chroma: usize = ((top + row) >> 1) * (frameWidth >> 1) + (left >> 1);
    const end = from + stride;
    for (; from < end; from += 32, y += 8, chroma += 4) {
      const a = v128.load(from);
      const b = v128.load(from, 16);
      const c = v128.load(from + stride);
      const d = v128.load(from + stride, 16);
      v128.store_lane<i64>(y, bytes(luma(a, wy), luma(b, wy)), 0);
      v128.store_lane<i64>(y + frameWidth, bytes(luma(c, wy), luma(d, wy)), 0);
      const first = blocks(a, c);
      const second = blocks(b, d);
      const zero = i32x4.splat(CHROMA_ZERO);
      const us = i32x4.shr_s(i32x4.add(weighted(first, second, wu), zero), 17);
      const vs = i32x4.shr_s(i32x4.add(weighted(first, second, wv), zero), 17);
      v128.store_lane<i32>(u + chroma, bytes(us, us), 0);
      v128.store_lane<i32>(v + chroma, bytes(vs, vs), 0);
    }
  }
}
