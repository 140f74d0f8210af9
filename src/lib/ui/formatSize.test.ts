import assert from 'node:assert/strict';
import { test } from 'node:test';
import { formatSize } from './formatSize.ts';

test('sizes are told in the unit that fits', () => {
  const sizes = [0, 1_499, 999_499, 999_500, 12_400_000, 240_000_000, 2_140_000_000, 3e15];
  assert.deepEqual(sizes.map(formatSize), [
    '0 KB',
    '1 KB',
    '999 KB',
    '1.0 MB',
    '12.4 MB',
    '240 MB',
    '2.1 GB',
    '3000 TB'
  ]);
});
