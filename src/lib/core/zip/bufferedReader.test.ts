import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { BufferedReader } from './bufferedReader.ts';

const SIZE = 10_000_000;
const bytes = Uint8Array.from({ length: SIZE }, (_, i) => (i * 7919) % 251);
const file = new Blob([bytes]);

test('any pieces of a file that is longer than what is read ahead come as they are', async () => {
  const piece = fc.tuple(
    fc.integer({ min: 0, max: SIZE + 1_000 }),
    fc.oneof(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 6_000_000 }))
  );
  await fc.assert(
    fc.asyncProperty(fc.array(piece, { minLength: 1, maxLength: 8 }), async (pieces) => {
      const reader = new BufferedReader(file);
      // All are asked for at once.
      const read = await Promise.all(pieces.map(([from, n]) => reader.bytesAt(from, n)));
      for (const [i, [from, n]] of pieces.entries())
        assert.ok(Buffer.from(read[i]!).equals(bytes.subarray(from, from + n)), `${from} ${n}`);
    }),
    { numRuns: 40 }
  );
});
