import assert from 'node:assert/strict';
import test from 'node:test';
import { NumberRows } from './numberRows.ts';

test('rows are found again by their number, however many there are', () => {
  const rows = new NumberRows(3);
  for (let i = 0; i < 2_000; i++) assert.equal(rows.add([i, i / 2, 2 ** 40 + i]), i);
  assert.equal(rows.count, 2_000);
  assert.deepEqual([...rows.at(0)], [0, 0, 2 ** 40]);
  assert.deepEqual([...rows.at(1_999)], [1_999, 999.5, 2 ** 40 + 1_999]);
});
