import assert from 'node:assert/strict';
import { test } from 'node:test';
import { chartOf } from './chart.ts';
import type { Piece } from './scenes.ts';

const table = (...rows: string[][]) => ({
  columns: rows[0]!.length,
  pieces: rows.flatMap((row, r) =>
    row.map((text): Piece => ({ role: 'cell', text, line: Math.max(0, r - 1), share: 0 }))
  )
});

test('a table with a column of numbers in one unit is a chart', () => {
  const chart = chartOf(
    table(['Yarn', 'Kind', 'Weight'], ['Wool', 'long', '1,250 g'], ['Linen', 'wet', '900 g'])
  );
  assert.equal(chart?.title, 'Weight');
  assert.deepEqual(chart?.bars, [
    { label: 'Wool', value: 1250, shown: '1,250 g', line: 0, share: 0 },
    { label: 'Linen', value: 900, shown: '900 g', line: 1, share: 0 }
  ]);
});

test('numbers of a comparison in the same unit are a chart', () => {
  const chart = chartOf({
    columns: 0,
    pieces: [
      { role: 'label', text: 'Hand', line: 0, share: 0 },
      { role: 'point', text: 'about 4.5 hours a metre', line: 0, share: 0 },
      { role: 'label', text: 'Fly shuttle', line: 0, share: 0.5 },
      { role: 'point', text: '2 hours', line: 0, share: 0.5 }
    ]
  });
  assert.deepEqual(
    chart?.bars.map((b) => [b.value, b.shown]),
    [
      [4.5, '4.5 hours'],
      [2, '2 hours']
    ]
  );
});

test('other units, spans, nothing, and too many rows are none', () => {
  const heads = ['A', 'B'];
  for (const rows of [
    [heads, ['x', '3 m'], ['y', '4 kg']],
    [heads, ['x', '3 to 4 m'], ['y', '4 m']],
    [heads, ['x', ''], ['y', '4']],
    [heads, ['x', '0'], ['y', '4']],
    [heads, ['', '3'], ['y', '4']],
    [heads, ['x', '3']],
    [heads, ...Array.from({ length: 9 }, (_, i) => [`r${i}`, '4'])]
  ])
    assert.equal(chartOf(table(...rows)), null, JSON.stringify(rows));
});
