import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import Papa from 'papaparse';
import { MAX_ROWS, readSheet, writeSheet } from './sheet.ts';
import { rowOf } from './sheetRows.ts';

const read = (text: string) => {
  const { sheet, problem } = readSheet(text);
  assert.equal(problem, null);
  return sheet!;
};
const item = (url: string, title = '', summary = '') => ({ url, title, summary });

test('a sheet keeps its columns and finds the one with the addresses', () => {
  const sheet = read(
    '\uFEFFTopic;Where;Who\r\nReeds;https://c.example/a;Isolde\r\n"A; b";https://c.example/b;\r\n'
  );
  assert.deepEqual(sheet.columns, ['Topic', 'Where', 'Who']);
  assert.equal(sheet.key, 1);
  assert.deepEqual(sheet.rows[1], ['A; b', 'https://c.example/b', '']);
  assert.equal(rowOf(sheet, item('https://c.example/b/')), 1);
  assert.equal(rowOf(sheet, item('https://c.example/x')), null);
});

test('lines that were pasted are a sheet of one column, addresses and topics mixed', () => {
  const sheet = read('https://c.example/a\n\nwarp tension\n');
  assert.deepEqual(sheet.columns, ['address']);
  assert.equal(rowOf(sheet, item('', 'On warp tension')), 1);
  assert.equal(rowOf(sheet, item('', 'On warps and tension')), null);
  assert.equal(read('madder\nindigo').rows.length, 2);
});

test('what is empty or far too long is reported', () => {
  assert.deepEqual(readSheet(' \n\n').problem, { kind: 'empty' });
  assert.deepEqual(readSheet('a,b\n').problem, { kind: 'empty' });
  assert.deepEqual(readSheet('x\n'.repeat(5_001)).problem, { kind: 'too-many-rows', most: 5_000 });
});

test('it comes back with its own columns and what became of each row', () => {
  const sheet = read('id,address\n7,https://c.example/a\n8,https://c.example/b\n');
  const back = writeSheet(
    sheet,
    new Map([
      [
        0,
        {
          status: 'placed',
          title: 'Reeds, "fine"',
          link: 'https://b.example/1',
          reason: '',
          time: 'T'
        }
      ],
      [1, { status: 'left out', title: '=1+1', link: '', reason: 'No captions.', time: '' }]
    ])
  );
  assert.deepEqual(Papa.parse(back.trim()).data, [
    ['id', 'address', 'status', 'title', 'link', 'reason', 'time'],
    ['7', 'https://c.example/a', 'placed', 'Reeds, "fine"', 'https://b.example/1', '', 'T'],
    // A spreadsheet runs no formula out of a title.
    ['8', 'https://c.example/b', 'left out', "'=1+1", '', 'No captions.', '']
  ]);
});

test('whatever stands in a sheet comes back in its own columns', () => {
  const cell = fc.string({ unit: 'grapheme', maxLength: 12 }).map((s) => s.trim());
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.webUrl(), cell, cell), { minLength: 1, maxLength: 8 }),
      (rows) => {
        const text = Papa.unparse([['address', 'x', 'y'], ...rows]);
        const sheet = read(text);
        const back = read(writeSheet(sheet, new Map())).rows;
        // A mark of ours in front of a formula is no part of the cell.
        const bare = (c: string) => (/^'\s*[=+\-@＝＋－＠]./s.test(c) ? c.slice(1).trim() : c);
        assert.deepEqual(
          back.map((r) => r.slice(1, 3)),
          rows.map((r) => r.slice(1).map(bare))
        );
      }
    )
  );
});

test('a list that comes back twice has each column once', () => {
  const outcome = {
    status: 'Published',
    title: 'Twill',
    link: 'https://b/1',
    reason: '',
    time: ''
  };
  const first = writeSheet(
    readSheet('address,note\nhttps://c.example/1,mine\n').sheet!,
    new Map([[0, outcome]])
  );
  const again = writeSheet(
    readSheet(first).sheet!,
    new Map([[0, { ...outcome, status: 'Undone' }]])
  );
  const [head, row] = again.trim().split('\r\n');
  assert.equal(new Set(head!.split(',')).size, head!.split(',').length);
  assert.match(row!, /^https:\/\/c\.example\/1,mine,Undone,Twill,/);
});

test('no cell that goes out is taken for a formula, and it comes back as it was', () => {
  const hostile = [
    '=1+1',
    '+1+1',
    '-1+1',
    '@SUM(A1)',
    '＝1',
    '＋1',
    '－1',
    '＠A1',
    ' =1',
    '\t=1',
    '\n=1'
  ];
  const numbers = ['-5', '+49', '1,5', '-1.000'];
  const sheet = {
    columns: ['=head', 'b'],
    rows: [...hostile, ...numbers].map((c) => [c, 'x']),
    key: 1
  };
  const text = writeSheet(sheet, new Map());
  const cells = Papa.parse<string[]>(text.trim()).data.map((row) => row[0] ?? '');
  for (const cell of cells.slice(0, hostile.length + 1)) assert.match(cell, /^'/, cell);
  assert.deepEqual(cells.slice(hostile.length + 1), numbers);
  const { sheet: back } = readSheet(text);
  assert.deepEqual(
    back?.rows.map((r) => r[0]),
    [...hostile, ...numbers].map((c) => c.trim())
  );
});

test('a sheet of more rows than are taken is refused, however many there are', () => {
  for (const rows of [MAX_ROWS + 1, 150_000, 1_000_000])
    assert.equal(
      readSheet(`address\n${'https://c.example/a\n'.repeat(rows)}`).problem?.kind,
      'too-many-rows'
    );
  assert.equal(readSheet(`${'a,'.repeat(100_000)}\nb`).problem, null);
});
