import assert from 'node:assert/strict';
import test from 'node:test';
import { gapsIn, monthDays } from './grid.ts';

test('empty days in a row are found from today on, within the month', () => {
  const days = monthDays('2026-11-01', 'Europe/Berlin');
  const full = new Set(['2026-11-12', '2026-11-13', '2026-11-15', '2026-11-30']);
  const gaps = gapsIn(days, (date) => !full.has(date), '2026-11-10', 2);
  assert.deepEqual(gaps, [
    { date: '2026-11-10', days: 2 },
    { date: '2026-11-16', days: 14 }
  ]);
  assert.deepEqual(
    gapsIn(days, () => false, '2026-11-10', 1),
    []
  );
});
