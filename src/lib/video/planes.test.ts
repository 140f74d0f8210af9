import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { Planes } from './planes.ts';

const pixels = (width: number, height: number, colour: (x: number, y: number) => number[]) => {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) data.set([...colour(x, y), 255], (y * width + x) * 4);
  return { data, width, height } as unknown as ImageData;
};
const whole = (width: number, height: number) => ({ x: 0, y: 0, width, height });

/** As ITU-R BT.709 has it, for 8 bits of limited range. */
function reference([r = 0, g = 0, b = 0]: number[]): [number, number, number] {
  const [red, green, blue] = [r / 255, g / 255, b / 255];
  const luma = 0.2126 * red + 0.7152 * green + 0.0722 * blue;
  return [
    16 + 219 * luma,
    128 + (224 * (blue - luma)) / 1.8556,
    128 + (224 * (red - luma)) / 1.5748
  ];
}

test('colours are those of BT.709, to the rounding', () => {
  const colour = fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 3, maxLength: 3 });
  fc.assert(
    fc.property(colour, (rgb) => {
      const planes = new Planes(4, 4);
      planes.put(
        pixels(4, 4, () => rgb),
        whole(4, 4)
      );
      const [y, u, v] = reference(rgb);
      for (const [at, wanted] of [
        [0, y],
        [15, y],
        [16, u],
        [20, v]
      ] as const)
        assert.ok(
          Math.abs(planes.data[at]! - wanted) <= 1,
          `${rgb}: ${planes.data[at]} for ${wanted}`
        );
    })
  );
});

test('part by part it is the same as all at once', () => {
  const size = fc.integer({ min: 1, max: 8 });
  fc.assert(
    fc.property(fc.nat(), size, size, size, size, (seed, x, y, w, h) => {
      const colour = (px: number, py: number) =>
        [px * 13 + seed, py * 29 + seed * 3, (px ^ py) * 7].map((c) => c & 255);
      const [all, parts] = [new Planes(32, 32), new Planes(32, 32)];
      all.put(pixels(32, 32, colour), whole(32, 32));
      parts.put(
        pixels(32, 32, () => [1, 2, 3]),
        whole(32, 32)
      );
      const box = parts.even({ x: x * 1.7, y: y * 1.3, width: w * 2.1, height: h * 1.9 });
      assert.ok([box.x, box.y, box.width, box.height].every((n) => n % 2 === 0));
      parts.put(
        pixels(box.width, box.height, (px, py) => colour(px + box.x, py + box.y)),
        box
      );
      for (let py = box.y; py < box.y + box.height; py++)
        for (let px = box.x; px < box.x + box.width; px++)
          assert.equal(parts.data[py * 32 + px], all.data[py * 32 + px]);
      for (const plane of [1024, 1280])
        for (let py = box.y / 2; py < (box.y + box.height) / 2; py++)
          for (let px = box.x / 2; px < (box.x + box.width) / 2; px++)
            assert.equal(parts.data[plane + py * 16 + px], all.data[plane + py * 16 + px]);
    })
  );
});
