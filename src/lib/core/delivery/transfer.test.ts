import assert from 'node:assert/strict';
import { test } from 'node:test';
import { problemSchema, type ProblemKind } from '../model/place.ts';
import { afterTrouble, resumeTransfer, transferSchema, type Transfer } from './transfer.ts';

const transfer = transferSchema.parse({
  key: 'k',
  placeId: 'c',
  itemId: 'p',
  title: 'Flax',
  file: 'f.webm',
  bytes: 9,
  type: 'video/webm',
  uploadUrl: 'https://c.example/u/1',
  sent: 5,
  thumbnail: '',
  embeds: true,
  state: 'sending',
  problem: null,
  attempts: 0,
  nextTry: 0,
  updated: 0
});
const trouble = (t: Transfer, kind: ProblemKind, retryAfter: number | null = null) =>
  afterTrouble(t, problemSchema.parse({ kind, retryAfter }), 1000);

test('passing trouble waits longer each time and keeps what was sent', () => {
  let now = transfer;
  let before = 0;
  for (let i = 0; i < 5; i++) {
    now = trouble(now, 'no-answer');
    assert.equal(now.state, 'waiting');
    assert.deepEqual([now.uploadUrl, now.sent], [transfer.uploadUrl, 5]);
    assert.ok(now.nextTry > before);
    before = now.nextTry;
  }
  for (let i = 0; i < 20; i++) now = trouble(now, 'no-answer');
  assert.equal(now.state, 'failed');
});

test('a host that asks for time gets it; what only the user can mend is not tried again', () => {
  assert.ok(trouble(transfer, 'busy', 90).nextTry >= 91_000);
  for (const kind of ['key-refused', 'over-quota', 'refused', 'stopped'] as const)
    assert.equal(trouble(transfer, kind).state, 'failed');
  const again = resumeTransfer(trouble(transfer, 'key-refused'), 5000);
  assert.deepEqual(
    [again.state, again.attempts, again.nextTry, again.sent],
    ['waiting', 0, 5000, 5]
  );
});

test('a file that the channel works on is not sent anew because a look at it failed', () => {
  assert.equal(trouble({ ...transfer, state: 'at-work' }, 'no-answer').state, 'at-work');
});
