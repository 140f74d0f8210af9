import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import Dexie from 'dexie';
import { laneSchema, newLane } from '$lib/core/lanes/lane.ts';
import { outboxEntrySchema, newEntry } from '$lib/core/delivery/outbox.ts';
import { laneRecordSchema } from '$lib/core/lanes/record.ts';
import { journalLineSchema } from '$lib/core/model/journal.ts';
import { Database } from './db.ts';

/** The tables of version 7 that hold what was renamed since. */
async function oldDatabase(name: string, rows: Record<string, object[]>): Promise<void> {
  const old = new Dexie(name);
  old.version(7).stores({
    lanes: 'id',
    records: 'id, laneId, state, runId',
    outbox: 'key, itemId, placeId, state, laneId, [laneId+state]',
    journal: '++id, at',
    steps: '++id, key',
    twins: 'id, date',
    narrations: 'id',
    renders: 'id'
  });
  for (const [table, some] of Object.entries(rows)) await old.table(table).bulkPut(some);
  old.close();
}

test('what version 7 kept opens under the names of today, and passes its schemas', async () => {
  const { filter, approval, ...lane } = newLane('l', 'Lane', 'Etc/UTC', 1);
  const payload = {
    title: 'Reeds',
    html: '<p>Reeds</p>',
    slug: '',
    excerpt: '',
    author: '',
    categories: [],
    tags: [],
    comments: 'open' as const,
    picture: null,
    status: 'draft' as const,
    date: null
  };
  const { publishedRevision: _revision, ...entry } = newEntry(
    { key: 'k', itemId: 'v', placeId: 'b', payload },
    1
  );
  const record = {
    id: 'l v',
    laneId: 'l',
    itemId: 'v',
    title: 'Reeds',
    url: '',
    state: 'dropped',
    reason: { kind: 'brake', made: 30 },
    problem: null,
    attempts: 0,
    nextTry: 0,
    keys: [],
    runId: 'r',
    found: 1,
    changed: 1
  };
  await oldDatabase('old', {
    lanes: [{ ...lane, sift: { ...filter, keep: ['reed'] }, gate: { opens: approval.mode } }],
    records: [record, { ...record, id: 'l w', state: 'placing', reason: null }],
    outbox: [{ ...entry, state: 'placed', wanted: 'placed', placedRevision: 3 }],
    journal: [{ id: 1, at: '2026-05-01T10:00:00Z', what: 'placing-failed' }],
    steps: [{ id: 1, key: 'k', at: '', did: 'replace', sent: '', answered: '' }],
    twins: [{ id: 'v', date: '', alsoTold: ['p'], reason: { kind: 'being-placed' } }],
    narrations: [{ id: 'p', scenes: [{ lines: [{ id: '1', heard: 'twelve ends' }] }] }],
    renders: [{ id: 'p', madeFrom: '[{"heard":"twelve ends"}]' }]
  });
  const db = new Database('old');
  const [kept] = await db.lanes.toArray();
  assert.deepEqual(laneSchema.parse(kept).filter.keep, ['reed']);
  assert.equal(laneSchema.parse(kept).approval.mode, 'after-review');
  const records = (await db.records.toArray()).map((r) => laneRecordSchema.parse(r));
  assert.deepEqual(
    records.map((r) => [r.state, r.reason?.kind ?? null]),
    [
      ['dropped', 'rate-guard'],
      ['publishing', null]
    ]
  );
  const sent = outboxEntrySchema.parse(await db.outbox.get('k'));
  assert.deepEqual(
    [sent.state, sent.wanted, sent.publishedRevision],
    ['published', 'published', 3]
  );
  assert.equal(journalLineSchema.parse(await db.journal.get(1)).what, 'publish-failed');
  assert.equal((await db.steps.get(1))?.did, 'update');
  const twin = await db.twins.get('v');
  assert.deepEqual([twin?.otherPosts, twin?.reason.kind], [['p'], 'publishing']);
  assert.equal((await db.narrations.get('p'))?.scenes[0]?.lines[0]?.spoken, 'twelve ends');
  assert.equal((await db.renders.get('p'))?.madeFrom, '[{"spoken":"twelve ends"}]');
  db.close();
});
