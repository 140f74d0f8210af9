import assert from 'node:assert/strict';
import { test } from 'node:test';
import { isSafeName } from './manifest.ts';
import { readRow } from './tables.ts';

test('names that leave their folder, or that some system does not take, are not safe', () => {
  for (const name of ['tables/items.jsonl', 'posts/2026-11-26-kette-aufbäumen-1.md', 'READ ME.txt'])
    assert.equal(isSafeName(name), true, name);
  const bad = [
    '',
    '/etc/passwd',
    '../a',
    'a/../b',
    'a//b',
    'a\\b',
    'C:a',
    'a\0b',
    'con',
    'a/nul.txt',
    'b.'
  ];
  for (const name of [...bad, 'x'.repeat(300)]) assert.equal(isSafeName(name), false, name);
});

test('a file of this application lies in no folder', () => {
  const row = (name: string) =>
    readRow('files', JSON.stringify({ name, content: { file: 'files/000001.webm', type: '' } }));
  assert.equal(row('a-video.webm').fault, null);
  assert.notEqual(row('../a.webm').fault, null);
  assert.notEqual(row('a/b.webm').fault, null);
});
