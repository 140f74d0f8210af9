import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { newLane } from '../core/lanes/lane.ts';
import { newEntry, type OutboxState, type PostPayload } from '../core/lanes/outbox.ts';
import { recordId, type LaneRecord } from '../core/lanes/record.ts';
import { transferSchema } from '../core/lanes/transfer.ts';
import { db } from './db.ts';
import { decide, laneShelf, openWork, removeLane, saveLane } from './lanes.ts';

const NOW = 1_790_000_000_000;
const payload: PostPayload = {
  ...{ title: 'One', html: '', slug: '', excerpt: '', author: '', categories: [], tags: [] },
  ...{ comments: 'open', picture: null, status: 'draft', date: null }
};
const entryOf = (key: string, state: 'in-review' | 'planned', laneId = 'l') =>
  newEntry({ key, itemId: 'v', placeId: 'b', payload, laneId, state }, NOW);
const recordOf = (keys: string[], change: Partial<LaneRecord> = {}): LaneRecord => ({
  ...{ id: recordId('l', 'v'), laneId: 'l', itemId: 'v', title: 'One', url: '', runId: 'r' },
  ...{ state: 'in-review', reason: null, problem: null, attempts: 0, nextTry: 0, keys },
  ...{ found: NOW, changed: NOW },
  ...change
});
const transferOf = (key: string) =>
  transferSchema.parse({
    ...{ key, placeId: 'b', itemId: 'v', title: 'One', file: 'f.webm', bytes: 1, embeds: false },
    ...{ thumbnail: '', type: 'video/webm', uploadUrl: '', sent: 0, state: 'waiting' },
    ...{ problem: null, attempts: 0, nextTry: 0, updated: NOW }
  });
const stateOf = async (key: string): Promise<OutboxState | undefined> =>
  (await db.outbox.get(key))?.state;

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

test('what is let out is planned at each of its places', async () => {
  const record = recordOf(['a', 'b']);
  await laneShelf.shelve(record, [entryOf('a', 'in-review'), entryOf('b', 'in-review')]);
  await decide([record], 'let-out', NOW + 1);
  assert.deepEqual([await stateOf('a'), await stateOf('b')], ['planned', 'planned']);
  assert.equal((await db.records.get(record.id))?.state, 'planned');
});

test('what is sent back is found anew; what is skipped is not; neither leaves anything to send', async () => {
  for (const [decision, state] of [
    ['send-back', 'found'],
    ['skip', 'skipped']
  ] as const) {
    const record = recordOf(['a']);
    await laneShelf.shelve(record, [entryOf('a', 'in-review')]);
    await db.transfers.put(transferOf('a'));
    await decide([record], decision, NOW + 1);
    const after = await db.records.get(record.id);
    assert.deepEqual([after?.state, after?.keys], [state, []]);
    assert.equal(await db.outbox.count(), 0);
    assert.equal(await db.transfers.count(), 0);
  }
});

test('a decision touches nothing that is on its way or stands already', async () => {
  const record = recordOf(['a', 'b']);
  await laneShelf.shelve(record, [entryOf('a', 'in-review'), entryOf('b', 'in-review')]);
  await db.outbox.update('a', { state: 'sending' });
  await decide([record], 'skip', NOW + 1);
  assert.deepEqual([await stateOf('a'), await stateOf('b')], ['sending', undefined]);
});

test('an entry that is known already is not made anew', async () => {
  await db.outbox.put({ ...entryOf('a', 'planned', ''), state: 'placed', url: 'https://b/1' });
  await laneShelf.shelve(recordOf(['a']), [entryOf('a', 'in-review')]);
  const entry = await db.outbox.get('a');
  assert.deepEqual([entry?.state, entry?.url, entry?.laneId], ['placed', 'https://b/1', '']);
});

test('a lane goes with its records and what it had not sent; what it placed can still be taken back', async () => {
  await saveLane(newLane('l', 'Lane', 'Etc/UTC', NOW));
  const record = recordOf(['a', 'b', 'c']);
  await laneShelf.shelve(record, [
    entryOf('a', 'in-review'),
    entryOf('b', 'planned'),
    entryOf('c', 'planned')
  ]);
  await db.outbox.put({ ...entryOf('c', 'planned'), state: 'placed' });
  await db.outbox.put(entryOf('other', 'planned', 'another lane'));
  for (const key of ['a', 'b', 'c']) await db.transfers.put(transferOf(key));
  await removeLane('l');
  assert.equal(await db.lanes.count(), 0);
  assert.equal(await db.records.count(), 0);
  assert.deepEqual((await db.outbox.toArray()).map((e) => [e.key, e.state, e.laneId]).sort(), [
    ['c', 'placed', ''],
    ['other', 'planned', 'another lane']
  ]);
  assert.deepEqual(await db.transfers.toCollection().primaryKeys(), ['c']);
});

test('a lane that is not whole is not saved', async () => {
  const lane = newLane('l', 'Lane', 'Etc/UTC', NOW);
  const broken = { ...lane, pace: { ...lane.pace, zone: 'Nowhere/At_all' } };
  await assert.rejects(async () => saveLane(broken));
  assert.equal(await db.lanes.count(), 0);
});

test('the open work of a lane is what may still go out, and changes with its states', async () => {
  await db.outbox.bulkPut([
    entryOf('a', 'planned'),
    entryOf('b', 'in-review'),
    { ...entryOf('c', 'planned'), state: 'placed' },
    { ...entryOf('d', 'planned'), state: 'failed' },
    entryOf('other', 'planned', 'another lane')
  ]);
  assert.deepEqual(await openWork('l'), ['planned a', 'failed d']);
  await db.outbox.update('a', { state: 'sending' });
  assert.deepEqual(await openWork('l'), ['sending a', 'failed d']);
});
