import assert from 'node:assert/strict';
import { test } from 'node:test';
import { chaptersFromCues, chaptersInDescription, timeCode } from './chapter.ts';

test('a chapter list in a description', () => {
  const text = 'About twills.\n\n0:00 Why\n(1:05) - Counting\n1:02:03 Weaving\nThanks';
  assert.deepEqual(chaptersInDescription(text), [
    { start: 0, title: 'Why' },
    { start: 65, title: 'Counting' },
    { start: 3723, title: 'Weaving' }
  ]);
});

test('times that are no chapter list', () => {
  assert.deepEqual(chaptersInDescription('Meet at 10:30 by the mill'), []);
  assert.deepEqual(chaptersInDescription('0:00 a\n1:00 b'), [], 'fewer than three');
  assert.deepEqual(chaptersInDescription('0:10 a\n1:00 b\n2:00 c'), [], 'not from the start');
  assert.deepEqual(chaptersInDescription('0:00 a\n2:00 b\n1:00 c'), [], 'not rising');
});

test('chapters of a track, and time codes', () => {
  assert.deepEqual(chaptersFromCues([{ start: 3, end: 9, text: 'The\ncross' }]), [
    { start: 3, title: 'The cross' }
  ]);
  assert.deepEqual([0, 59.9, 60, 3600, 36061].map(timeCode), [
    '0:00',
    '0:59',
    '1:00',
    '1:00:00',
    '10:01:01'
  ]);
});
