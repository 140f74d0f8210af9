import assert from 'node:assert/strict';
import { test } from 'node:test';
import { journalLineSchema, type NewJournalLine } from '../model/journal.ts';
import { summarise, summaryTexts } from './summary.ts';

const line = (change: Partial<NewJournalLine>) =>
  journalLineSchema.parse({ at: '2026-05-01T10:00:00Z', what: 'published', ...change });

test('what failed and then stood is reported as published, and what was undone is not', () => {
  const summary = summarise(
    '2026-05-01',
    [
      line({ what: 'publish-failed', key: 'a', title: 'Reeds' }),
      line({ key: 'a', title: 'Reeds', url: 'https://b.example/1' }),
      line({ key: 'b', title: 'Warps' }),
      line({ what: 'removed', key: 'b', title: 'Warps' }),
      line({ what: 'publish-failed', key: 'c', title: 'Dents' }),
      line({ what: 'run', title: 'All' }),
      line({ what: 'connected', title: 'A place' })
    ],
    { waits: 2, planned: [] }
  );
  assert.deepEqual(summary.placed, [{ title: 'Reeds', url: 'https://b.example/1' }]);
  assert.deepEqual(summary.failed, [{ title: 'Dents', detail: '' }]);
  assert.deepEqual([summary.removed, summary.runs, summary.waits], [1, 1, 2]);
});

test('its texts say the same, and a title is no markup', () => {
  const { subject, text, html } = summaryTexts({
    day: '2026-05-01',
    failed: [],
    removed: 0,
    runs: 1,
    waits: 0,
    planned: [],
    placed: [{ title: '<b>Reeds</b>', url: 'https://b.example/1' }]
  });
  assert.equal(subject, 'Swift Twin, 2026-05-01: 1 item placed');
  assert.match(text, /^1 item was placed, 0 failed,[\s\S]*- <b>Reeds<\/b>\n {2}https:/);
  assert.match(html, /<li>&#60;b&#62;Reeds[\s\S]*<a href="https:\/\/b\.example\/1">/);
  assert.ok(!html.includes('<b>'));
});
