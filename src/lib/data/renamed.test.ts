import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import Dexie from 'dexie';
import { laneSchema, newLane } from '$lib/core/lanes/lane.ts';
import { outboxEntrySchema, newEntry } from '$lib/core/delivery/outbox.ts';
import { laneRecordSchema } from '$lib/core/lanes/record.ts';
import { styleSchema } from '$lib/core/narration/styles.ts';
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

test('what version 9 kept of looks has motion, lights and a speaker, and its sentences are statements', async () => {
  const style = {
    name: 'sheet',
    ground: '#112233',
    accent: '#ddaa88',
    typeface: 'sans',
    mark: 'm'
  };
  const old = new Dexie('looks');
  old.version(9).stores({
    narrations: 'id',
    lanes: 'id',
    updates: 'id',
    settings: 'name',
    trash: 'id, at'
  });
  await old.table('narrations').put({ id: 'p', style, scenes: [{ kind: 'sentence', lines: [] }] });
  await old
    .table('lanes')
    .put({ id: 'l', make: { kind: 'video', look: { style, frame: 'wide' } } });
  await old.table('updates').put({ id: 'u', card: { text: null, style } });
  await old.table('settings').put({ name: 'booth', value: { style, frame: 'square' } });
  await old.table('settings').put({ name: 'zone', value: 'Etc/UTC' });
  await old.table('trash').put({ id: 't', at: 1, rows: [{ scenes: [{ kind: 'sentence' }] }] });
  old.close();
  const db = new Database('looks');
  const trashed = (await db.table('trash').get('t')) as { rows: object[] };
  assert.deepEqual(trashed.rows, [{ scenes: [{ kind: 'statement' }] }]);
  const whole = styleSchema.parse(style);
  const [narration, lane, update, booth, zone] = (await Promise.all([
    db.table('narrations').get('p'),
    db.table('lanes').get('l'),
    db.table('updates').get('u'),
    db.settings.get('booth'),
    db.settings.get('zone')
  ])) as [
    { style: object; scenes: { kind: string }[] },
    { make: { look: object } },
    { card: object },
    { value: object },
    { value: string }
  ];
  assert.equal(narration.scenes[0]?.kind, 'statement');
  assert.deepEqual(narration.style, whole);
  assert.deepEqual(lane.make.look, { style: whole, frame: 'wide' });
  assert.deepEqual(update.card, { text: null, style: whole });
  assert.deepEqual(booth.value, { style: whole, frame: 'square' });
  assert.equal(zone.value, 'Etc/UTC');
  db.close();
});
