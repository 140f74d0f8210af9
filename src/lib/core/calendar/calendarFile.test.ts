import assert from 'node:assert/strict';
import { test } from 'node:test';
import { calendarFile } from './calendarFile.ts';

test('what is planned becomes events in universal time, its text escaped', () => {
  const at = Date.parse('2026-03-29T01:00:00Z');
  const file = calendarFile(
    [{ id: 'k', title: 'Reeds, part 1; with\nBEGIN:VEVENT', place: 'Notebook', lane: 'All', at }],
    0
  );
  const lines = file.split('\r\n');
  assert.equal(lines.filter((l) => l === 'BEGIN:VEVENT').length, 1);
  assert.ok(lines.includes('UID:k@swift-twin.invalid'));
  assert.ok(lines.includes('DTSTART:20260329T010000Z') && lines.includes('DTEND:20260329T011500Z'));
  assert.ok(
    lines.some((l) => l.startsWith('SUMMARY:Reeds\\, part 1\\; with\\nBEGIN:VEVENT → Notebook'))
  );
  assert.ok(lines.every((l) => new TextEncoder().encode(l).length <= 75));
});
