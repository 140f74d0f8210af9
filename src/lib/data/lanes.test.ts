import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { newLane } from '../core/lanes/lane.ts';
import { newEntry, type OutboxState } from '../core/delivery/outbox.ts';
import type { LaneRecord } from '../core/lanes/record.ts';
import { transferSchema } from '../core/delivery/transfer.ts';
import { db } from './db.ts';
import { bringBack } from './trash.ts';
import {
  addLane,
  beginUndo,
  decideAll,
  endUndo,
  getLane,
  laneStore,
  makeAgain,
  patchLane,
  openWork,
  removeLane
} from './lanes.ts';
import { aPostPayload, aRecord } from '../core/testing.ts';

const NOW = 1_790_000_000_000;
const payload = aPostPayload({ title: 'One', status: 'draft' });
const entryOf = (key: string, state: 'in-review' | 'planned', laneId = 'l') =>
  newEntry({ key, itemId: 'v', placeId: 'b', payload, laneId, state }, NOW);
const recordOf = (keys: string[], change: Partial<LaneRecord> = {}) =>
  aRecord({
    laneId: 'l',
    itemId: 'v',
    state: 'in-review',
    keys,
    found: NOW,
    changed: NOW,
    ...change
  });
const transferOf = (key: string) =>
  transferSchema.parse({
    key,
    placeId: 'b',
    itemId: 'v',
    title: 'One',
    file: 'f.webm',
    bytes: 1,
    embeds: false,
    thumbnail: '',
    type: 'video/webm',
    uploadUrl: '',
    sent: 0,
    state: 'waiting',
    problem: null,
    attempts: 0,
    nextTry: 0,
    updated: NOW
  });
const stateOf = async (key: string): Promise<OutboxState | undefined> =>
  (await db.outbox.get(key))?.state;

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

test('what is approved is planned at each of its places', async () => {
  const record = recordOf(['a', 'b']);
  await laneStore.saveMade(record, [entryOf('a', 'in-review'), entryOf('b', 'in-review')], []);
  await decideAll([record], 'approve', NOW + 1);
  assert.deepEqual([await stateOf('a'), await stateOf('b')], ['planned', 'planned']);
  assert.equal((await db.records.get(record.id))?.state, 'planned');
});

test('what is sent back is found anew; what is skipped is not; neither leaves anything to send', async () => {
  for (const [decision, state] of [
    ['send-back', 'found'],
    ['skip', 'skipped']
  ] as const) {
    const record = recordOf(['a']);
    await laneStore.saveMade(record, [entryOf('a', 'in-review')], []);
    await db.transfers.put(transferOf('a'));
    await decideAll([record], decision, NOW + 1);
    const after = await db.records.get(record.id);
    assert.deepEqual([after?.state, after?.keys], [state, []]);
    assert.equal(await db.outbox.count(), 0);
    assert.equal(await db.transfers.count(), 0);
  }
});

test('a decision touches nothing that is on its way or stands already', async () => {
  const record = recordOf(['a', 'b']);
  await laneStore.saveMade(record, [entryOf('a', 'in-review'), entryOf('b', 'in-review')], []);
  await db.outbox.update('a', { state: 'sending' });
  await decideAll([record], 'skip', NOW + 1);
  assert.deepEqual([await stateOf('a'), await stateOf('b')], ['sending', undefined]);
});

test('an entry that is known already is not made anew', async () => {
  await db.outbox.put({ ...entryOf('a', 'planned', ''), state: 'published', url: 'https://b/1' });
  await laneStore.saveMade(recordOf(['a']), [entryOf('a', 'in-review')], []);
  const entry = await db.outbox.get('a');
  assert.deepEqual([entry?.state, entry?.url, entry?.laneId], ['published', 'https://b/1', '']);
});

test('a lane goes with its records and what it had not sent; what it published can still be taken back', async () => {
  await addLane(newLane('l', 'Lane', 'Etc/UTC', NOW));
  const record = recordOf(['a', 'b', 'c']);
  await laneStore.saveMade(
    record,
    [entryOf('a', 'in-review'), entryOf('b', 'planned'), entryOf('c', 'planned')],
    []
  );
  await db.outbox.put({ ...entryOf('c', 'planned'), state: 'published' });
  await db.outbox.put(entryOf('other', 'planned', 'another lane'));
  for (const key of ['a', 'b', 'c']) await db.transfers.put(transferOf(key));
  await removeLane('l', 'trash', new Date());
  assert.equal(await db.lanes.count(), 0);
  assert.equal(await db.records.count(), 0);
  assert.deepEqual((await db.outbox.toArray()).map((e) => [e.key, e.state, e.laneId]).sort(), [
    ['c', 'published', ''],
    ['other', 'planned', 'another lane']
  ]);
  assert.deepEqual(await db.transfers.toCollection().primaryKeys(), ['c']);
  // All of it can be brought back, once; what was sent since belongs to its lane again.
  assert.equal(await bringBack('trash'), true);
  assert.equal((await getLane('l'))?.name, 'Lane');
  assert.equal(await db.records.count(), 1);
  assert.deepEqual((await db.outbox.toArray()).map((e) => [e.key, e.laneId]).sort(), [
    ['a', 'l'],
    ['b', 'l'],
    ['c', 'l'],
    ['other', 'another lane']
  ]);
  assert.equal(await bringBack('trash'), false);
});

test('a lane that is not whole is not saved', async () => {
  const lane = newLane('l', 'Lane', 'Etc/UTC', NOW);
  const broken = { ...lane, pace: { ...lane.pace, zone: 'Nowhere/At_all' } };
  await assert.rejects(async () => addLane(broken));
  assert.equal(await db.lanes.count(), 0);
});

test('the open work of a lane is what may still go out, and changes with its states', async () => {
  await db.outbox.bulkPut([
    entryOf('a', 'planned'),
    entryOf('b', 'in-review'),
    { ...entryOf('c', 'planned'), state: 'published' },
    { ...entryOf('d', 'planned'), state: 'failed' },
    entryOf('other', 'planned', 'another lane')
  ]);
  assert.deepEqual(await openWork('l'), ['planned a', 'failed d']);
  await db.outbox.update('a', { state: 'sending' });
  assert.deepEqual(await openWork('l'), ['sending a', 'failed d']);
});

test('settings of a lane are changed field by field, whatever else was changed meanwhile', async () => {
  await addLane({ ...newLane('l', 'Lane', 'Etc/UTC', NOW), isOn: true });
  // The rate guard stops it; a form that was opened before saves its name, and a run its end.
  await patchLane('l', { isOn: false, stopped: { at: NOW, made: 30 } });
  await patchLane('l', { name: 'Renamed' });
  const lane = await getLane('l');
  assert.deepEqual([lane?.isOn, lane?.stopped?.made, lane?.name], [false, 30, 'Renamed']);
  await patchLane('gone', { isOn: true });
  assert.equal(await db.lanes.count(), 1);
});

test('what a blocking finding holds is not approved; it can be sent back', async () => {
  const record = recordOf(['a']);
  const finding = {
    level: 'blocking' as const,
    of: 'post' as const,
    finding: { kind: 'not-from-talk' }
  };
  await laneStore.saveMade(record, [{ ...entryOf('a', 'in-review'), findings: [finding] }], []);
  assert.equal(await decideAll([record], 'approve', NOW + 1), 0);
  assert.equal(await stateOf('a'), 'in-review');
  assert.equal(await decideAll([record], 'send-back', NOW + 2), 1);
  assert.equal(await stateOf('a'), undefined);
});

test('an undo that is cut off in the middle can be done again: the record still names its entries', async () => {
  const record = recordOf(['a', 'b', 'c'], { state: 'published' });
  await laneStore.saveMade(
    record,
    [entryOf('a', 'planned'), entryOf('b', 'planned'), entryOf('c', 'in-review')],
    []
  );
  for (const key of ['a', 'b'])
    await db.outbox.update(key, {
      state: 'published',
      url: `https://b/${key}`,
      publishedRevision: 1
    });
  assert.deepEqual((await beginUndo(record.id, NOW)).sort(), ['a', 'b']);
  assert.equal(await stateOf('c'), undefined);
  // The tab is closed here, after the first was removed.
  await db.outbox.update('a', { state: 'removed' });
  assert.equal(await endUndo(record.id, NOW), false);
  assert.deepEqual(await beginUndo(record.id, NOW), ['b']);
  await db.outbox.update('b', { state: 'removed' });
  assert.equal(await endUndo(record.id, NOW), true);
  assert.deepEqual((await laneStore.record(record.id))?.state, 'undone');
});

test('what was undone is made again when the user asks for it, and only then', async () => {
  const record = recordOf(['a'], { state: 'undone' });
  await laneStore.saveMade(record, [entryOf('a', 'planned')], []);
  await db.outbox.update('a', { state: 'removed', url: '' });
  await makeAgain(record.id, NOW);
  const released = await laneStore.record(record.id);
  assert.deepEqual([released?.state, released?.again, released?.keys], ['found', true, []]);
  await laneStore.saveMade(recordOf(['a']), [entryOf('a', 'in-review')], []);
  assert.equal(await stateOf('a'), 'in-review');
});
