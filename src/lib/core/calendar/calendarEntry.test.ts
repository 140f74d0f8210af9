import assert from 'node:assert/strict';
import { test } from 'node:test';
import { aPostPayload, anEntry, anItem } from '../testing.ts';
import { calendarEntries } from './calendarEntry.ts';
import { anyTime, checkMove } from './move.ts';

const NOW = Date.parse('2026-11-26T12:00:00Z');
const DAY = 86_400_000;
const iso = (at: number) => new Date(at).toISOString();

test('each thing is there once: what was published here is known by its address', () => {
  const url = 'https://blog.example/reeds';
  const item = anItem({ id: 'p1', kind: 'post', title: 'Reeds', url, published: iso(NOW - DAY) });
  const other = anItem({
    id: 'v1',
    kind: 'video',
    title: 'Sleying',
    published: iso(NOW - 2 * DAY)
  });
  const entry = anEntry({ key: 'k', url, state: 'published', publishedRevision: 1, updated: NOW });
  const found = calendarEntries([entry], [], [item, other], NOW);
  assert.deepEqual(
    found.map(({ id, at, state }) => [id, at, state]),
    [
      ['v1', NOW - 2 * DAY, 'published'],
      ['k', NOW - DAY, 'published']
    ]
  );
});

test('what can be moved: what waits to be sent, what has a date at its place, what a lane planned', () => {
  const dated = aPostPayload({ status: 'dated', date: iso(NOW + DAY) });
  const planned = anEntry({ key: 'lane', state: 'planned', laneId: 'l', itemId: 'i' });
  const found = calendarEntries(
    [
      anEntry({ key: 'sent', state: 'waiting', nextTry: NOW + 2 * DAY }),
      anEntry({ key: 'dated', state: 'published', payload: dated }),
      planned,
      anEntry({ key: 'retry', state: 'waiting', attempts: 2, nextTry: NOW + 60_000 }),
      anEntry({ key: 'review', state: 'in-review' }),
      anEntry({ key: 'gone', state: 'published', wanted: 'removed' }),
      anEntry({ key: 'draft', state: 'published', payload: aPostPayload({ status: 'draft' }) })
    ],
    [{ itemId: 'i', entries: [planned], at: NOW + 3 * DAY, isPinned: true, waitsFor: null }],
    [],
    NOW
  );
  assert.deepEqual(
    found.map(({ id, at, state, moves, isPinned }) => [
      id,
      (at - NOW) / DAY,
      state,
      moves,
      isPinned
    ]),
    [
      ['retry', 0, 'sending', null, false],
      ['dated', 1, 'scheduled', 'dated', false],
      ['sent', 2, 'scheduled', 'sent', false],
      ['lane', 3, 'planned', 'planned', true]
    ]
  );
});

test('an item that its place shows on a date is there, and one that nobody sees is not', () => {
  const at = iso(NOW + DAY);
  const found = calendarEntries(
    [],
    [],
    [
      anItem({ id: 'premiere', kind: 'video', published: at, visibility: 'scheduled' }),
      anItem({ id: 'draft', kind: 'post', published: at, visibility: 'draft' }),
      anItem({ id: 'undated', kind: 'post', published: null })
    ],
    NOW
  );
  assert.deepEqual(
    found.map(({ id, state, moves }) => [id, state, moves]),
    [['premiere', 'scheduled', null]]
  );
});

test('what no lane publishes is held to the allowance of its place, and to the present', () => {
  const pace = anyTime('Etc/UTC');
  const used = [NOW + DAY];
  const allowance = { most: 1, per: 'day' as const, left: 1, asOf: NOW, used };
  const history = { placed: [], since: 0, allowances: [allowance] };
  assert.equal(checkMove(pace, history, NOW + 2 * DAY, NOW), null);
  assert.deepEqual(checkMove(pace, history, NOW + DAY + 1, NOW)?.reason, 'allowance');
  assert.equal(checkMove(pace, history, NOW - DAY, NOW)?.reason, 'past');
  const { nearest } = checkMove(pace, history, NOW - DAY, NOW) ?? {};
  assert.equal(nearest, NOW + 60_000);
});
