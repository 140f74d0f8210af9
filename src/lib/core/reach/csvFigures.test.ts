import assert from 'node:assert/strict';
import test from 'node:test';
import fc from 'fast-check';
import {
  figuresOfTable,
  guessColumns,
  readCount,
  readDate,
  readFiguresTable
} from './csvFigures.ts';
import { dayOfDate } from './day.ts';

test('columns are guessed by heading and content, and rows become figures', () => {
  const { table } = readFiguresTable(
    '\uFEFFDay;Page;Unique views;Likes given\n' +
      '2026-11-01;https://tube.example/watch/1;1.204;7\n' +
      '2026-11-02;https://tube.example/watch/1;88;\n' +
      '2026-11-02;https://tube.example/watch/404;9;1\n' +
      'Total;;9;1\n'
  );
  const choice = guessColumns(table!);
  assert.deepEqual(choice, { item: 1, date: 0, counters: { views: 2, likes: 3 }, isPerDay: true });
  const { rows, unknown, unreadable } = figuresOfTable(
    table!,
    choice,
    (cell) => (cell.endsWith('/1') ? 'video-1' : undefined),
    0
  );
  assert.deepEqual(rows, [
    { item: 'video-1', day: dayOfDate('2026-11-01'), counts: { views: 1204, likes: 7 } },
    { item: 'video-1', day: dayOfDate('2026-11-02'), counts: { views: 88 } }
  ]);
  assert.deepEqual(unknown, ['https://tube.example/watch/404']);
  assert.equal(unreadable, 1);
});

test('a table of titles without dates tells totals of today', () => {
  const { table } = readFiguresTable('Video title,Plays\nWarp,12\nTwill,"1,340"\n');
  const choice = guessColumns(table!);
  assert.deepEqual(choice, { item: 0, date: null, counters: { views: 1 }, isPerDay: false });
  const { rows } = figuresOfTable(table!, choice, (cell) => cell, 99);
  assert.deepEqual(rows[1], { item: 'Twill', day: 99, counts: { views: 1340 } });
});

test('dates and counts are read, and nothing else is taken for one', () => {
  assert.equal(readDate('3.4.2026'), dayOfDate('2026-04-03'));
  assert.equal(readDate('2026-04-03T10:00:00Z'), dayOfDate('2026-04-03'));
  for (const no of ['', '03/04/2026', '2026-13-01', 'soon']) assert.equal(readDate(no), null);
  assert.equal(readCount("12'500"), 12_500);
  for (const no of ['', '-3', '12 %', '1,2,3', 'many']) assert.equal(readCount(no), null);
  assert.deepEqual(readFiguresTable('one\n').problem, { kind: 'empty' });
});

test('any text is read or refused', () => {
  fc.assert(
    fc.property(fc.string(), (text) => {
      const { table } = readFiguresTable(text);
      if (table) guessColumns(table);
    })
  );
});
