import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import fc from 'fast-check';
import { Archive } from '$lib/core/archive/read.ts';
import {
  ARCHIVE_TABLE_NAMES,
  archiveTable,
  type ArchiveTableName
} from '$lib/core/archive/tables.ts';
import type { Lane } from '$lib/core/lanes/lane.ts';
import type { ReachRow, VisitHours } from '$lib/core/reach/reachRow.ts';
import { anItem } from '$lib/core/testing.ts';
import {
  ALL,
  archived,
  clearAll,
  everything,
  files,
  fillStudio,
  importFrom,
  MADE,
  textOf
} from '../../../../tests/archiveStudio.ts';
import { arbitraryOf } from '../../../../tests/arbitraryOf.ts';
import { db } from '../db.ts';
import { restoreEverything } from '../everything.ts';
import { readKey } from '../keys.ts';
import { planImport } from './plan.ts';
import { rowName } from './rows.ts';
import { importArchive, type ImportChoice } from './importArchive.ts';
import { openSealedKeys, sealKeys } from './sealedKeys.ts';
import { openSource } from './source.ts';

beforeEach(clearAll);

const TABLES = ARCHIVE_TABLE_NAMES.filter(
  (n) => !['files', 'media', 'samples', 'speech', 'settings'].includes(n)
);
/** Hours in their order, and a zone that there is: their schema asks for both. */
const withZone = (row: unknown) => {
  const lane = row as Lane;
  const pace = { ...lane.pace, hours: { from: 9, to: 17 }, zone: 'Europe/Lisbon' };
  return { ...lane, pace };
};
/** As many totals as days: its schema asks for both. */
const withEvenLists = (row: unknown) => {
  const { counters, visits, ...rest } = row as ReachRow;
  const evenly = (days: number[], numbers: number[]) => {
    const length = Math.min(days.length, numbers.length);
    return [days.slice(0, length), numbers.slice(0, length)] as const;
  };
  const curves = Object.entries(counters).map(([counter, { days: on, totals: by, until }]) => {
    const [days, totals] = evenly(on, by);
    return [counter, { days, totals, until }];
  });
  const sources = Object.entries(visits).map(([source, { days: on, counts: by }]) => {
    const [days, counts] = evenly(on, by);
    return [source, { days, counts }];
  });
  return { ...rest, counters: Object.fromEntries(curves), visits: Object.fromEntries(sources) };
};
const withAllHours = (row: unknown) => ({
  ...(row as VisitHours),
  hours: Array.from({ length: 24 }, (_, hour) => hour)
});
const AS_ASKED_FOR: Partial<Record<ArchiveTableName, (row: unknown) => unknown>> = {
  lanes: withZone,
  reach: withEvenLists,
  visitHours: withAllHours
};
const rowOf = (name: ArchiveTableName) => {
  const any = arbitraryOf(archiveTable(name).schema);
  const change = AS_ASKED_FOR[name];
  return change ? any.map(change) : any;
};
/** Rows of any shape that a table takes. */
const anyRows = fc.record(
  Object.fromEntries(TABLES.map((name) => [name, fc.array(rowOf(name), { maxLength: 3 })]))
);

test('whatever is kept comes back as it was', { timeout: 120_000 }, async () => {
  await fc.assert(
    fc.asyncProperty(anyRows, async (given) => {
      await clearAll();
      for (const [name, rows] of Object.entries(given))
        await db.table(name).bulkPut(rows as object[]);
      const before = await everything();
      const file = await archived();
      for (const name of TABLES) await db.table(name).clear();
      // A place whose key does not come with it is one to be read only.
      const keys = [...(given.places ?? []), ...(given.networks ?? [])].map((place) => ({
        placeId: (place as { id: string }).id,
        iv: new Uint8Array(12),
        sealed: new Uint8Array(16)
      }));
      assert.deepEqual((await importFrom(file, { keys })).findings, []);
      const now = await everything();
      for (const name of TABLES) assert.deepEqual(now[name], before[name], name);
    }),
    { numRuns: 10, endOnFailure: true }
  );
});

test('media, readings, videos and keys come back to the byte; what is of one browser stays there', async () => {
  await fillStudio();
  const before = await everything();
  const file = await archived({ ...ALL, keys: await sealKeys('a long passphrase') });
  await clearAll();
  const sealed = await textOf(await Archive.open(file), 'keys.json');
  assert.doesNotMatch(sealed, /wren-key/);
  assert.equal(await openSealedKeys(sealed, 'another passphrase'), null);
  const keys = await openSealedKeys(sealed, 'a long passphrase');
  const { counts } = await importFrom(file, { keys: keys ?? [] });
  assert.equal(counts.files, 1);
  const { settings, speech, samples, ...now } = await everything();
  const { settings: _, speech: __, samples: sounds, ...rest } = before;
  assert.deepEqual(now, rest);
  assert.deepEqual(
    settings?.filter(({ name }) => name !== 'keyOfKeys'),
    [
      { name: 'started', value: 'empty' },
      { name: 'zone', value: 'Europe/Lisbon' }
    ]
  );
  assert.deepEqual(
    speech?.map(({ key }) => key),
    ['take:one']
  );
  assert.deepEqual(
    samples,
    sounds?.filter(({ key }) => key === 'take:one')
  );
  assert.equal(new TextDecoder().decode(files.get('c-video.webm')), 'a finished video');
  assert.deepEqual([...files.keys()], ['c-video.webm']);
  assert.equal(await readKey('blog'), 'wren-key');
});

test('without its keys a place is to be read only, and no key stands in the archive', async () => {
  await fillStudio();
  const file = await archived();
  assert.doesNotMatch(await file.text(), /wren-key/);
  await clearAll();
  await importFrom(file);
  const blog = await db.places.get('blog');
  assert.deepEqual([blog?.hasKey, blog?.rights], [false, ['read']]);
});

test('an archive that sends posts elsewhere does not get the key of this browser', async () => {
  await fillStudio();
  const micropub = 'https://elsewhere.example/micropub';
  await db.places.update('blog', { micropub });
  const file = await archived();
  await db.places.update('blog', { micropub: 'https://blog.example/micropub' });
  await importFrom(file, { how: 'merge' });
  assert.equal(await readKey('blog'), 'wren-key');
  await importFrom(file, { how: 'replace' });
  const blog = await db.places.get('blog');
  assert.deepEqual([blog?.micropub, blog?.hasKey, await readKey('blog')], [micropub, false, '']);
});

test('there are copies for other programs', async () => {
  await fillStudio();
  const archive = await Archive.open(await archived());
  const names = Array.from(archive.files(), ({ name }) => name);
  const copies = names.filter((name) => /^(?:posts|captions)\//.test(name));
  assert.deepEqual(copies, [
    'captions/2026-03-01-part-a-a.vtt',
    'posts/2026-03-01-part-c-c.html',
    'posts/2026-03-01-part-c-c.md'
  ]);
  assert.match(await textOf(archive, copies[0]!), /^WEBVTT\n\n00:00/);
  const markdown = await textOf(archive, copies[2]!);
  assert.match(markdown, /^---\ntitle: Part c\n/);
  assert.match(markdown, /## Warp\n\nWind the \*warp\*\./);
});

test('copies of what is called the same have names of their own', async () => {
  await db.items.put(anItem({ id: '2', kind: 'post', title: 'Warp 00000000' }));
  await db.bodies.put({ id: '2', html: '<p>2</p>' });
  for (const id of ['00000000-a', '00000000-b', '00000000-c']) {
    await db.items.put(anItem({ id, kind: 'post', title: 'Warp' }));
    await db.bodies.put({ id, html: `<p>${id}</p>` });
  }
  const archive = await Archive.open(await archived());
  const names = Array.from(archive.files(), ({ name }) => name).filter((n) => n.endsWith('.md'));
  assert.deepEqual(names, [
    'posts/2026-03-01-warp-00000000.md',
    'posts/2026-03-01-warp-00000000-2.md',
    'posts/2026-03-01-warp-00000000-3.md',
    'posts/2026-03-01-warp-00000000-2-2.md'
  ]);
});

test('merging adds what is new, takes what is newer, and leaves what is chosen', async () => {
  await fillStudio();
  const file = await archived();
  const later = '2026-11-27T09:00:00.000Z';
  await db.items.update('a', { title: 'Retitled here', updated: later });
  await db.items.update('b', { title: 'As it was before', updated: '2020-01-01T00:00:00.000Z' });
  await db.bodies.put({ id: 'c', html: '<p>Here</p>' });
  await db.items.delete('d');
  await db.journal.add({ ...(await db.journal.toCollection().first())!, id: 99, at: later });

  const archive = await Archive.open(file);
  const source = await openSource(archive, []);
  const plan = await planImport(source);
  assert.deepEqual(
    plan.tables.filter(({ fresh, differing }) => fresh + differing > 0),
    [
      { table: 'items', fresh: 1, same: 1, differing: 2 },
      { table: 'bodies', fresh: 0, same: 0, differing: 1 }
    ]
  );
  assert.deepEqual(
    plan.differences.map(({ table, title, isNewer }) => [table, title, isNewer]),
    [
      ['items', 'Part a', false],
      ['items', 'Part b', true],
      ['bodies', 'Part c', false]
    ]
  );
  // Nothing is told of what is the same here: the lane and the entry would not be touched.
  assert.equal(plan.running, 0);

  const taken = new Map([[rowName('bodies', 'c'), true]]);
  await importFrom(file, { how: 'merge', taken });
  assert.deepEqual(
    (await db.items.toArray()).map(({ title }) => title),
    ['Retitled here', 'Part b', 'Part c', 'Part d']
  );
  assert.match((await db.bodies.get('c'))?.html ?? '', /<h2>Warp/);
  assert.equal(await db.journal.count(), 2);
  assert.equal(await readKey('blog'), 'wren-key');

  // All of it can be undone.
  assert.equal(await restoreEverything(), true);
  assert.equal((await db.items.get('b'))?.title, 'As it was before');
  assert.equal(await db.items.count(), 3);
});

test('captions that were only read again are the same', async () => {
  await fillStudio();
  const file = await archived();
  await db.details.update('a', { read: '2026-11-27T09:00:00.000Z' });
  const plan = await planImport(await openSource(await Archive.open(file), []));
  assert.equal(plan.differing, 0);
  await db.details.update('a', { seekTo: 'https://channel.example/a?t={seek_to_second_number}' });
  const { differences } = await planImport(await openSource(await Archive.open(file), []));
  assert.deepEqual(
    differences.map(({ table, isNewer }) => [table, isNewer]),
    [['details', false]]
  );
});

test('importing once more changes nothing', async () => {
  await fillStudio();
  const before = await everything();
  const { counts } = await importFrom(await archived(), { how: 'merge' });
  assert.deepEqual(counts, {});
  const { settings, ...now } = await everything();
  const { settings: _, ...rest } = before;
  assert.deepEqual(now, rest);
  assert.ok(settings?.some(({ name }) => name === 'secret'));
});

test('what would go on by itself can be held', async () => {
  await fillStudio();
  const file = await archived();
  await clearAll();
  const plan = await planImport(await openSource(await Archive.open(file), []));
  assert.equal(plan.running, 2);
  await importFrom(file, { holds: true });
  assert.equal((await db.lanes.get('lane'))?.isOn, false);
  const entry = await db.outbox.get('e');
  assert.deepEqual([entry?.state, entry?.problem?.kind], ['failed', 'stopped']);
});

test('where the room ends in the middle, everything is as it was', async () => {
  await fillStudio();
  const file = await archived();
  await clearAll();
  await db.items.put(anItem({ id: 'mine', kind: 'post', title: 'Mine' }));
  const full = () => {
    throw new DOMException('No room.', 'QuotaExceededError');
  };
  db.media.hook('creating', full);
  await assert.rejects(() => importFrom(file), /No room/);
  db.media.hook('creating').unsubscribe(full);
  assert.deepEqual(
    (await db.items.toArray()).map(({ title }) => title),
    ['Mine']
  );
  assert.equal(await db.places.count(), 0);
  assert.deepEqual([...files.keys()], []);
});

test('an import that is stopped changes nothing', async () => {
  await fillStudio();
  const file = await archived();
  await clearAll();
  const stopping = new AbortController();
  const source = await openSource(await Archive.open(file), []);
  const choice: ImportChoice = { how: 'replace', taken: new Map(), holds: false, keys: [] };
  const report = (rows: number) => rows > 4 && stopping.abort();
  await assert.rejects(() => importArchive(source, choice, { signal: stopping.signal, report }));
  assert.deepEqual([await db.items.count(), files.size], [0, 0]);
});

test('the manifest says when it was made, and how many rows there are', async () => {
  await fillStudio();
  const { head } = await Archive.open(await archived());
  assert.equal(head.made, MADE);
  assert.deepEqual([head.tables.items, head.tables.files, head.tables.samples], [4, 1, 1]);
});
