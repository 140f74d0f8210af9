import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { writeArchive } from '$lib/core/archive/write.ts';
import { anEntry, anItem } from '$lib/core/testing.ts';
import { clearAll, importFrom, MADE } from '../../../../tests/archiveStudio.ts';
import { db } from '../db.ts';
import { examineArchive, openSource } from './source.ts';
import { planImport } from './plan.ts';

beforeEach(clearAll);

/** An archive of tables as another version had them. */
async function archiveOf(schema: number, tables: Record<string, object[]>): Promise<Blob> {
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
  const blob = new Response(readable as ReadableStream<Uint8Array<ArrayBuffer>>).blob();
  async function* parts() {
    for (const [table, rows] of Object.entries(tables))
      yield { name: `tables/${table}.jsonl`, content: linesOf(rows) };
  }
  await writeArchive(writable, parts(), { schema, made: MADE, tables: {} });
  return blob;
}

async function* linesOf(rows: readonly object[]): AsyncGenerator<string> {
  for (const row of rows) yield `${JSON.stringify(row)}\n`;
}

test('an archive of an earlier version is brought up to this one', async () => {
  const {
    sent: _,
    sentBefore: __,
    sentAt: ___,
    ...entry
  } = anEntry({ key: 'e', state: 'published' });
  const details = {
    id: 'a',
    cues: [{ start: 0, end: 1, text: 'Warp' }],
    chapters: [],
    seekTo: '',
    read: MADE
  };
  const file = await archiveOf(7, {
    items: [anItem({ id: 'a', kind: 'video' })],
    details: [details],
    // Version 8 gave these their names of today, version 9 gave entries what was sent.
    outbox: [{ ...entry, state: 'placed', wanted: 'placed', placedRevision: 1 }],
    journal: [{ at: MADE, what: 'placed', title: 'Warp' }],
    media: [],
    'of-yesterday': [{ id: 1 }]
  });
  const { findings } = await importFrom(file, { how: 'merge' });
  assert.deepEqual(findings, []);
  const brought = await db.outbox.get('e');
  assert.deepEqual([brought?.state, brought?.wanted], ['published', 'published']);
  assert.deepEqual(brought?.sent, brought?.payload);
  assert.ok((await db.details.get('a'))?.mark);
  assert.equal((await db.journal.toCollection().first())?.what, 'published');
  // Nothing is left of the database that it was brought up in.
  assert.ok(!(await indexedDB.databases()).some(({ name }) => name === 'swift-twin-import'));
});

test('an archive with tables of a later version is told apart', async () => {
  const later = await archiveOf(1_000, { items: [] });
  await assert.rejects(() => examineArchive(later), { fault: { kind: 'later-version' } });
  assert.deepEqual((await examineArchive(await archiveOf(7, { items: [] }))).findings, []);
});

test('rows of an earlier version that are none are counted or refused, and nothing is written', async () => {
  const odd = await archiveOf(7, { items: [anItem({ id: 'a', kind: 'video' }), { id: 'b' }] });
  const source = await openSource((await examineArchive(odd)).archive, []);
  const plan = await planImport(source);
  assert.deepEqual(
    [plan.tables, source.unread()],
    [[{ table: 'items', fresh: 1, same: 0, differing: 0 }], 1]
  );
  await source.close();
  const unkeyed = await archiveOf(7, { items: [{ title: 'No id' }] });
  const { archive } = await examineArchive(unkeyed);
  await assert.rejects(() => openSource(archive, []), { fault: { kind: 'tables-damaged' } });
  assert.equal(await db.items.count(), 0);
});
