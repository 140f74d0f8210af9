import assert from 'node:assert/strict';
import { readFile } from 'node:fs/promises';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Box } from '$lib/core/narration/frames.ts';
import { Planes } from './planes.ts';

const program = new WebAssembly.Module(await readFile(new URL('./planes.wasm', import.meta.url)));

type Colour = (x: number, y: number) => readonly number[];

/** Puts colours into a box of planes, as a browser would paint them. */
function put(planes: Planes, box: Box, colour: Colour, isBlueFirst = false): void {
  const pixels = planes.pixelsOf(box);
  for (let y = 0; y < box.height; y++)
    for (let x = 0; x < box.width; x++) {
      const rgb = colour(box.x + x, box.y + y);
      pixels.set([...(isBlueFirst ? rgb.toReversed() : rgb), 255], (y * box.width + x) * 4);
    }
  planes.put(box, isBlueFirst);
}
const whole = (width: number, height: number) => ({ x: 0, y: 0, width, height });

/** As ITU-R BT.709 has it, for 8 bits of limited range. */
function reference([r = 0, g = 0, b = 0]: readonly number[]): [number, number, number] {
  const [red, green, blue] = [r / 255, g / 255, b / 255];
  const luma = 0.2126 * red + 0.7152 * green + 0.0722 * blue;
  return [
    16 + 219 * luma,
    128 + (224 * (blue - luma)) / 1.8556,
    128 + (224 * (red - luma)) / 1.5748
  ];
}

test('colours are those of BT.709, to the rounding, whichever comes first', () => {
  const colour = fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 3, maxLength: 3 });
  const planes = new Planes(program, 8, 4);
  fc.assert(
    fc.property(colour, fc.boolean(), (rgb, isBlueFirst) => {
      put(planes, whole(8, 4), () => rgb, isBlueFirst);
      const wanted = reference(rgb);
      const found = [
        planes.data.subarray(0, 32),
        planes.data.subarray(32, 40),
        planes.data.subarray(40)
      ];
      for (const [plane, values] of found.entries())
        for (const value of values)
          assert.ok(
            Math.abs(value - wanted[plane]!) <= 0.6,
            `${rgb}: ${value} for ${wanted[plane]}`
          );
    })
  );
});

test('of four pixels each has its own luma, and all together one chroma', () => {
  const planes = new Planes(program, 8, 2);
  const colours = [...'01234567'].map((_, x) => [x * 30, 255 - x * 20, (x * 77) % 256]);
  put(planes, whole(8, 2), (x, y) => colours[(x + y) % 8]!);
  for (let x = 0; x < 8; x++)
    for (let y = 0; y < 2; y++) {
      const wanted = reference(colours[(x + y) % 8]!)[0];
      assert.ok(Math.abs(planes.data[y * 8 + x]! - wanted) <= 0.6);
    }
  for (let x = 0; x < 4; x++) {
    const four = [2 * x, 2 * x + 1, 2 * x + 1, 2 * x + 2].map((n) => colours[n % 8]!);
    const mean = [0, 1, 2].map((c) => four.reduce((sum, rgb) => sum + rgb[c]!, 0) / 4);
    assert.ok(Math.abs(planes.data[16 + x]! - reference(mean)[1]) <= 0.6);
    assert.ok(Math.abs(planes.data[20 + x]! - reference(mean)[2]) <= 0.6);
  }
});

test('part by part it is the same as all at once, and nothing beside the part is touched', () => {
  const [left, top] = [fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 24 })];
  const size = fc.integer({ min: 1, max: 24 });
  const [all, parts] = [new Planes(program, 64, 48), new Planes(program, 64, 48)];
  fc.assert(
    fc.property(fc.nat(), left, top, size, size, (seed, x, y, width, height) => {
      const colour: Colour = (px, py) =>
        [px * 13 + seed, py * 29 + seed * 3, (px ^ py) * 7].map((c) => c & 255);
      put(all, whole(64, 48), colour);
      put(parts, whole(64, 48), () => [1, 2, 3]);
      const before = parts.data.slice();
      const box = parts.around({ x: x + 0.3, y: y + 0.7, width, height });
      assert.ok(box.x <= x && box.y <= y && box.x + box.width >= x + width);
      put(parts, box, colour);
      const isIn = (px: number, py: number, by: number) =>
        px * by >= box.x &&
        px * by < box.x + box.width &&
        py * by >= box.y &&
        py * by < box.y + box.height;
      for (const [start, stride, by] of [
        [0, 64, 1],
        [3072, 32, 2],
        [3840, 32, 2]
      ] as const)
        for (let py = 0; py < 48 / by; py++)
          for (let px = 0; px < stride; px++) {
            const at = start + py * stride + px;
            const wanted = isIn(px, py, by) ? all.data[at] : before[at];
            assert.equal(parts.data[at], wanted, `${px},${py} of plane ${start}`);
          }
    })
  );
});

test('a frame that cannot be converted eight pixels at a time is refused', () => {
  assert.throws(() => new Planes(program, 12, 8), RangeError);
});
