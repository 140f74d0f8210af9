import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { newLane } from '../core/lanes/lane.ts';
import { newEntry } from '../core/delivery/outbox.ts';
import type { LaneRecord } from '../core/lanes/record.ts';
import { networkSchema, type Network } from '../core/model/network.ts';
import { placeSchema, problemSchema, type Place } from '../core/model/place.ts';
import { journalLineSchema } from '../core/model/journal.ts';
import { readAlerts } from './alerts.ts';
import { saveArchiveFolder } from './archive/folder.ts';
import { saveLastArchive, saveReminderDays } from './archive/reminder.ts';
import { db } from './db.ts';
import { aPostPayload, aRecord } from '../core/testing.ts';

const NOW = Date.parse('2026-05-20T12:00:00Z');
const DAY = 86_400_000;
const iso = (time: number) => new Date(time).toISOString();
const nothing = {
  review: 0,
  comments: 0,
  failed: 0,
  low: [],
  ending: [],
  refused: [],
  quiet: [],
  archiveDue: false,
  copyFails: false
};

const placeOf = (change: Partial<Place> = {}): Place =>
  placeSchema.parse({
    id: 'b',
    kind: 'blog',
    url: '',
    feedUrl: '',
    title: 'Notebook',
    author: '',
    micropub: 'https://b/micropub',
    tokenEndpoint: '',
    rights: ['read'],
    hasKey: true,
    origins: [],
    linked: '',
    checked: '',
    problem: null,
    ...change
  });
const networkOf = (change: Partial<Network> = {}): Network =>
  networkSchema.parse({
    id: 'n',
    actor: '',
    url: '',
    title: 'Notes',
    about: '',
    outbox: '',
    limitsUrl: '',
    tagCounts: '',
    limits: { text: 500, picture: 'optional', hashtags: 3 },
    allowance: null,
    hasKey: true,
    isUsual: true,
    origins: [],
    linked: '',
    checked: '',
    problem: null,
    ...change
  });
const recordOf = (change: Partial<LaneRecord>) =>
  aRecord({
    laneId: 'l',
    itemId: 'v',
    state: 'published',
    keys: ['k'],
    found: NOW,
    changed: NOW,
    ...change
  });

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

test('where all is well nothing is reported', async () => {
  await db.places.put(placeOf({ keyEnds: iso(NOW + 15 * DAY) }));
  await db.networks.put(networkOf({ allowance: { most: 12, per: 'day', left: 2 } }));
  await db.lanes.put({ ...newLane('l', 'Lane', 'Etc/UTC', NOW), isOn: true, since: NOW - DAY });
  assert.deepEqual(await readAlerts(NOW), nothing);
});

test('a key is reported two weeks before its end, and only where there is one', async () => {
  await db.places.put(placeOf({ keyEnds: iso(NOW + 13 * DAY) }));
  await db.networks.put(networkOf({ hasKey: false, keyEnds: iso(NOW + DAY) }));
  assert.deepEqual(await readAlerts(NOW), { ...nothing, ending: ['Notebook'] });
});

test('an allowance is low at a tenth, and at the last one', async () => {
  const asOf = iso(NOW);
  const levels: [number, number, boolean][] = [
    [30, 4, false],
    [30, 3, true],
    [5, 1, true],
    [5, 2, false],
    [30, 0, true]
  ];
  for (const [most, left, isLow] of levels) {
    await db.places.put(placeOf({ allowance: { most, per: 'month', left, asOf } }));
    assert.deepEqual((await readAlerts(NOW)).low, isLow ? ['Notebook'] : [], `${left} of ${most}`);
  }
});

test('a place fails while it is paused or refuses its key', async () => {
  const problem = problemSchema.parse({ kind: 'key-refused' });
  await db.places.put(placeOf({ problem }));
  await db.networks.put(networkOf());
  await db.pauses.put({ placeId: 'n', until: NOW + 1, tries: 1, problem });
  assert.deepEqual((await readAlerts(NOW)).refused, ['Notebook', 'Notes']);
  assert.deepEqual((await readAlerts(NOW + 2)).refused, ['Notebook']);
});

test('a lane that is on and found nothing for two weeks is reported', async () => {
  const lane = { ...newLane('l', 'Lane', 'Etc/UTC', NOW), isOn: true, since: NOW - 30 * DAY };
  await db.lanes.put(lane);
  assert.deepEqual((await readAlerts(NOW)).quiet, ['Lane']);
  // Looking at things and leaving them out is no finding.
  await db.records.put(recordOf({ state: 'dropped', keys: [], changed: NOW - DAY }));
  assert.deepEqual((await readAlerts(NOW)).quiet, ['Lane']);
  await db.records.put(recordOf({ changed: NOW - 15 * DAY }));
  assert.deepEqual((await readAlerts(NOW)).quiet, ['Lane']);
  await db.records.put(recordOf({ changed: NOW - 13 * DAY }));
  assert.deepEqual((await readAlerts(NOW)).quiet, []);
  await db.records.clear();
  await db.lanes.put({ ...lane, isOn: false });
  assert.deepEqual((await readAlerts(NOW)).quiet, []);
});

test('what waits and what failed is counted, made or not', async () => {
  const payload = aPostPayload({ title: 'One', status: 'draft' });
  const entryOf = (key: string) =>
    newEntry({ key, itemId: 'v', placeId: 'b', payload, laneId: 'l', state: 'in-review' }, NOW);
  await db.outbox.bulkPut([entryOf('a'), entryOf('b'), { ...entryOf('c'), state: 'failed' }]);
  await db.records.bulkPut([
    recordOf({ id: 'l c', state: 'failed', keys: ['c'] }),
    recordOf({ id: 'l d', state: 'failed', keys: [] })
  ]);
  const { review, failed } = await readAlerts(NOW);
  assert.deepEqual([review, failed], [2, 2]);
});

test('an archive is due a while after the last one, or after the first thing that was done', async () => {
  const isDue = async (now: number) => (await readAlerts(now)).archiveDue;
  assert.equal(await isDue(NOW), false);
  await db.journal.add(journalLineSchema.parse({ at: iso(NOW - 31 * DAY), what: 'connected' }));
  assert.equal(await isDue(NOW), true);
  await saveLastArchive({ at: iso(NOW - 8 * DAY), bytes: 1 });
  assert.equal(await isDue(NOW), false);
  await saveReminderDays(7);
  assert.equal(await isDue(NOW), true);
  await saveReminderDays(0);
  assert.equal(await isDue(NOW + 1_000 * DAY), false);
});

test('a folder that cannot be written to is told', async () => {
  const handle = {} as FileSystemDirectoryHandle;
  await saveArchiveFolder({ handle, last: '', trouble: '' });
  assert.equal((await readAlerts(NOW)).copyFails, false);
  await saveArchiveFolder({ handle, last: '', trouble: 'not-allowed' });
  assert.equal((await readAlerts(NOW)).copyFails, true);
});
