import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { cutAround } from './frame.ts';

test('a picture is cut around its subject as far as its edges allow', () => {
  const size = { width: 1600, height: 900 };
  assert.deepEqual(cutAround(size, 1, { x: 0.5, y: 0.5 }), {
    x: 350,
    y: 0,
    width: 900,
    height: 900
  });
  assert.equal(cutAround(size, 1, { x: 0, y: 0.5 }).x, 0);
  assert.equal(cutAround(size, 1, { x: 1, y: 0.5 }).x, 700);
  assert.deepEqual(cutAround(size, null, { x: 0, y: 0 }), { x: 0, y: 0, ...size });
});

test('the part lies within the picture, has the shape, and is as large as it can be', () => {
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  const side = fc.integer({ min: 50, max: 4000 });
  fc.assert(
    fc.property(
      ...([side, side, fc.double({ min: 0.3, max: 3, noNaN: true }), share, share] as const),
      (width, height, shape, x, y) => {
        const cut = cutAround({ width, height }, shape, { x, y });
        assert.ok(cut.x >= 0 && cut.x + cut.width <= width);
        assert.ok(cut.y >= 0 && cut.y + cut.height <= height);
        assert.ok(cut.width === width || cut.height === height);
        assert.ok(Math.abs(cut.width - cut.height * shape) <= Math.max(1, shape));
        // The subject is in it.
        assert.ok(width * x >= cut.x - 1 && width * x <= cut.x + cut.width + 1);
        assert.ok(height * y >= cut.y - 1 && height * y <= cut.y + cut.height + 1);
      }
    )
  );
});
