import assert from 'node:assert/strict';
import { test } from 'node:test';
import { PlaceError, problemSchema, type ProblemKind } from '../model/place.ts';
import {
  afterCommand,
  beforeCommand,
  mergeSaved,
  MOST_ATTEMPTS,
  newEntry,
  nextCommand,
  retryNow,
  TIMES,
  toProblem,
  wantAnew,
  type OutboxEntry,
  type PostPayload
} from './outbox.ts';

const payload: PostPayload = {
  ...{ title: 'One', html: '', slug: '', excerpt: '', author: '', categories: [], tags: [] },
  ...{ comments: 'open', picture: null, status: 'draft', date: null }
};
const NOW = 1000;
const entry = (given: Partial<OutboxEntry> = {}): OutboxEntry => ({
  ...newEntry({ key: 'k', itemId: 'v', placeId: 'b', payload }, NOW),
  ...given
});
const failing = (
  kind: ProblemKind,
  given: Partial<OutboxEntry> = {},
  command: 'find' | 'place' = 'place'
) =>
  afterCommand(
    beforeCommand(entry(given), { do: command }, NOW),
    { do: command },
    { came: 'problem', problem: problemSchema.parse({ kind }) },
    NOW,
    1
  );

test('nothing is placed before it was looked for', () => {
  assert.deepEqual(nextCommand(entry(), false, NOW), { do: 'find' });
  assert.deepEqual(nextCommand(entry(), true, NOW), { do: 'place' });
  assert.deepEqual(nextCommand(entry({ url: 'u' }), false, NOW), { do: 'replace', url: 'u' });
});

test('what is settled is left alone, and what has to wait waits', () => {
  for (const state of ['placed', 'failed', 'removed'] as const) {
    assert.deepEqual(nextCommand(entry({ state }), true, NOW), { do: 'nothing' });
  }
  assert.deepEqual(nextCommand(entry({ nextTry: 5000 }), false, NOW), { do: 'wait', until: 5000 });
});

test('while an unanswered call may still take effect, it is looked for but nothing is written', () => {
  const open = entry({ unsettledUntil: 9000 });
  assert.deepEqual(nextCommand(open, false, NOW), { do: 'find' });
  assert.deepEqual(nextCommand(open, true, NOW), { do: 'wait', until: 9000 });
  assert.deepEqual(nextCommand({ ...open, url: 'u' }, true, NOW), { do: 'wait', until: 9000 });
  assert.deepEqual(nextCommand(open, true, 9001), { do: 'place' });
});

test('a write is written down as possibly under way before it is sent; a look is not', () => {
  assert.equal(beforeCommand(entry(), { do: 'place' }, NOW).unsettledUntil, NOW + TIMES.callLimit);
  assert.equal(beforeCommand(entry(), { do: 'find' }, NOW).unsettledUntil, 0);
});

test('silence leaves a write open, an answer closes it', () => {
  assert.equal(failing('timed-out').unsettledUntil, NOW + TIMES.callLimit);
  assert.equal(failing('no-answer').unsettledUntil, NOW + TIMES.callLimit);
  assert.equal(failing('server-error').unsettledUntil, 0);
  assert.equal(failing('timed-out', { unsettledUntil: 7000 }, 'find').unsettledUntil, 7000);
});

test('waits grow, and end after so many attempts', () => {
  const waits = [0, 1, 2, 3].map((attempts) => failing('server-error', { attempts }).nextTry - NOW);
  assert.deepEqual(waits, [1000, 2000, 4000, 8000]);
  assert.equal(failing('server-error', { attempts: MOST_ATTEMPTS - 1 }).state, 'failed');
});

test('what the user must mend fails at once, with its reason', () => {
  for (const kind of [
    'key-refused',
    'right-missing',
    'over-quota',
    'refused',
    'key-missing'
  ] as const) {
    const failed = failing(kind);
    assert.equal(failed.state, 'failed');
    assert.equal(failed.problem?.kind, kind);
  }
});

test('a post that someone removed at the blog is looked for once more, then placed anew', () => {
  const gone = afterCommand(
    entry({ url: 'u', placedRevision: 1, revision: 2 }),
    { do: 'replace', url: 'u' },
    { came: 'problem', problem: problemSchema.parse({ kind: 'not-found' }) },
    NOW,
    0
  );
  assert.deepEqual(nextCommand(gone, false, NOW), { do: 'find' });
});

test('a wish that came while working stands, with what was learned', () => {
  const learned = entry({ state: 'placed', url: 'u', placedRevision: 1 });
  const newer = wantAnew(entry(), { wanted: 'removed' }, NOW);
  assert.deepEqual(mergeSaved(newer, learned), { ...newer, url: 'u', placedRevision: 1 });
  assert.equal(mergeSaved(null, learned), learned);
});

test('trying again starts afresh, but not for what is settled', () => {
  const failed = failing('key-refused', { attempts: 3 });
  assert.deepEqual([retryNow(failed, 9).state, retryNow(failed, 9).attempts], ['waiting', 0]);
  const placed = entry({ state: 'placed' });
  assert.equal(retryNow(placed, 9), placed);
});

test('any error becomes a problem', () => {
  assert.equal(toProblem(new PlaceError({ kind: 'busy' })).kind, 'busy');
  assert.deepEqual(
    [toProblem(new Error('x')).kind, toProblem(new Error('x')).detail],
    ['no-answer', 'x']
  );
});
