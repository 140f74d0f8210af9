import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { anItem } from '$lib/core/testing.ts';
import { pairTwins } from '$lib/core/twins/pair.ts';
import { db } from './db.ts';
import { allTies, decideTies, restoreTies } from './ties.ts';
import { replaceTwins } from './twins.ts';
import { readUnpaired, videosToRead } from './unpaired.ts';

beforeEach(() => Promise.all(db.tables.map((table) => table.clear())));
const titles = { video: 'V', post: 'P' };
const at = '2026-01-01T00:00:00.000Z';

test('what is decided is kept, and an undo brings back what was decided before', async () => {
  await decideTies([{ video: 'v', post: 'p', relation: 'none', titles, at }]);
  const before = await decideTies([
    { video: 'v', post: 'p', relation: 'twin', titles, at },
    { video: 'w', post: 'q', relation: 'twin', titles, at }
  ]);
  assert.deepEqual(
    before.map((t) => [t.id, t.relation]),
    [['v p', 'none']]
  );
  await restoreTies(['v p', 'w q'], before);
  assert.deepEqual(
    (await allTies()).map((t) => [t.id, t.relation]),
    [['v p', 'none']]
  );
});

test('only what lacks its other half is compared, with what is said in it, and nothing that was made here', async () => {
  const captions = [{ url: 'https://video.example/v.vtt', language: 'en' }];
  const videos = [
    anItem({ id: 'v', kind: 'video', captions }),
    anItem({ id: 'w', kind: 'video', captions }),
    anItem({ id: 'made', kind: 'video', origin: 'key' })
  ];
  const posts = [
    anItem({ id: 'p', kind: 'post', summary: 'A summary' }),
    anItem({ id: 'q', kind: 'post', links: ['https://video.example/w'] })
  ];
  await db.items.bulkPut([...videos, ...posts]);
  await replaceTwins(pairTwins(videos, posts));
  assert.deepEqual(
    (await videosToRead()).map((v) => v.id),
    ['v']
  );
  const cue = { start: 0, end: 2, text: 'So, um, we wind it', speaker: '' };
  await db.details.put({ id: 'v', cues: [cue], chapters: [], seekTo: '', read: at });
  await db.bodies.put({ id: 'v', html: '<p>A <b>description</b>.</p>' });
  await decideTies([{ video: 'v', post: 'p', relation: 'none', titles, at }]);
  const read = await readUnpaired();
  assert.deepEqual(
    read.videos.map(({ item, text }) => [item.id, text]),
    [['v', 'A description. So, we wind it']]
  );
  assert.deepEqual(
    read.posts.map(({ item, text }) => [item.id, text]),
    [['p', 'A summary']]
  );
  assert.deepEqual([...read.refused], ['v p']);
  assert.deepEqual(await videosToRead(), []);
});
