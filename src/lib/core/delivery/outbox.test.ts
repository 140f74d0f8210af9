import assert from 'node:assert/strict';
import { test } from 'node:test';
import { problemSchema, type ProblemKind } from '../model/place.ts';
import {
  afterCommand,
  beforeCommand,
  mergeSaved,
  MAX_ATTEMPTS,
  newEntry,
  nextCommand,
  retryNow,
  TIMES,
  changeRequest,
  type OutboxEntry
} from './outbox.ts';
import { aPostPayload } from '../testing.ts';

const payload = aPostPayload({ title: 'One', status: 'draft' });
const NOW = 1000;
const entry = (given: Partial<OutboxEntry> = {}): OutboxEntry => ({
  ...newEntry({ key: 'k', itemId: 'v', placeId: 'b', payload }, NOW),
  ...given
});
const failing = (
  kind: ProblemKind,
  given: Partial<OutboxEntry> = {},
  command: 'find' | 'publish' = 'publish'
) =>
  afterCommand(
    beforeCommand(entry(given), { do: command }, NOW),
    { do: command },
    { came: 'problem', problem: problemSchema.parse({ kind }) },
    NOW,
    1
  );

test('nothing is published before it was looked for', () => {
  assert.deepEqual(nextCommand(entry(), false, NOW), { do: 'find' });
  assert.deepEqual(nextCommand(entry(), true, NOW), { do: 'publish' });
  assert.deepEqual(nextCommand(entry({ url: 'u' }), false, NOW), { do: 'update', url: 'u' });
});

test('what is delivered is left alone, and what has to wait waits', () => {
  for (const state of ['published', 'failed', 'removed'] as const) {
    assert.deepEqual(nextCommand(entry({ state }), true, NOW), { do: 'nothing' });
  }
  assert.deepEqual(nextCommand(entry({ nextTry: 5000 }), false, NOW), { do: 'wait', until: 5000 });
});

test('while an unanswered call may still take effect, it is looked for but nothing is written', () => {
  const open = entry({ unsettledUntil: 9000 });
  assert.deepEqual(nextCommand(open, false, NOW), { do: 'find' });
  assert.deepEqual(nextCommand(open, true, NOW), { do: 'wait', until: 9000 });
  assert.deepEqual(nextCommand({ ...open, url: 'u' }, true, NOW), { do: 'wait', until: 9000 });
  assert.deepEqual(nextCommand(open, true, 9001), { do: 'publish' });
});

test('a write is written down as possibly under way before it is sent; a look is not', () => {
  assert.equal(
    beforeCommand(entry(), { do: 'publish' }, NOW).unsettledUntil,
    NOW + TIMES.callLimit
  );
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
  assert.equal(failing('server-error', { attempts: MAX_ATTEMPTS - 1 }).state, 'failed');
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

test('a post that someone removed at the blog is looked for once more, then published anew', () => {
  const gone = afterCommand(
    entry({ url: 'u', publishedRevision: 1, revision: 2 }),
    { do: 'update', url: 'u' },
    { came: 'problem', problem: problemSchema.parse({ kind: 'not-found' }) },
    NOW,
    0
  );
  assert.deepEqual(nextCommand(gone, false, NOW), { do: 'find' });
});

test('a wish that came while working stands, with what was learned', () => {
  const learned = entry({ state: 'published', url: 'u', publishedRevision: 1 });
  const newer = changeRequest(entry(), { wanted: 'removed' }, NOW);
  assert.deepEqual(mergeSaved(newer, learned), { ...newer, url: 'u', publishedRevision: 1 });
  assert.equal(mergeSaved(null, learned), learned);
});

test('trying again starts afresh, but not for what is delivered', () => {
  const failed = failing('key-refused', { attempts: 3 });
  assert.deepEqual([retryNow(failed, 9).state, retryNow(failed, 9).attempts], ['waiting', 0]);
  const placed = entry({ state: 'published' });
  assert.equal(retryNow(placed, 9), placed);
});
