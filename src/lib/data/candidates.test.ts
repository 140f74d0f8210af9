import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { newLane, type Lane } from '../core/lanes/lane.ts';
import { newEntry } from '../core/delivery/outbox.ts';
import { anItem, aPostPayload } from '../core/testing.ts';
import { candidatesOf } from './candidates.ts';
import { db } from './db.ts';
import { setAside } from './decisions.ts';
import { pairAgain } from '../workers/pairAgain.ts';

const TEXT =
  'Sleying is easier in good light. Two ends lie in each dent, and the hook goes through from ' +
  'behind. Count to ten, tie a slip knot, and go on to the next ten until the reed is full.';

const laneOf = (
  change: Partial<Lane['source']> = {},
  filter: Partial<Lane['filter']> = {}
): Lane => {
  const lane = newLane('l', 'Lane', 'Etc/UTC', 0);
  return {
    ...lane,
    source: { ...lane.source, places: ['channel'], ...change },
    filter: { ...lane.filter, ...filter }
  };
};
const byId = async (lane: Lane) =>
  new Map((await candidatesOf(lane)).map((c) => [c.item.id, c] as const));

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

test('only what its sources have is looked at, each with its other half', async () => {
  const video = anItem({ id: 'v1', kind: 'video' });
  await db.items.bulkPut([
    video,
    anItem({ id: 'v2', kind: 'video' }),
    anItem({ id: 'p1', kind: 'post', title: 'The post', embeds: [video.embedUrl] })
  ]);
  await pairAgain();
  const found = await byId(laneOf());
  assert.deepEqual([...found.keys()].sort(), ['v1', 'v2']);
  assert.equal(found.get('v1')?.twin.other, 'The post');
  assert.equal(found.get('v2')?.twin.other, null);
});

test('what was set aside is known to be so', async () => {
  await db.items.put(anItem({ id: 'v1', kind: 'video' }));
  await setAside('v1', '2026-05-01T00:00:00Z');
  await pairAgain();
  assert.equal((await byId(laneOf())).get('v1')?.twin.isSetAside, true);
});

test('words are counted only where the lane asks for them', async () => {
  await db.items.put(anItem({ id: 'v1', kind: 'video' }));
  await db.bodies.put({ id: 'v1', html: `<p>${TEXT}</p>` });
  assert.equal((await byId(laneOf())).get('v1')?.words, 0);
  const counted = (await byId(laneOf({}, { fewestWords: 3 }))).get('v1')?.words;
  assert.equal(counted, TEXT.split(/\s+/).length);
});

test('what a playlist has is known by what the channel calls it', async () => {
  await db.items.bulkPut([
    anItem({ id: 'v1', kind: 'video', nativeId: 'tag:one' }),
    anItem({ id: 'v2', kind: 'video', nativeId: 'tag:two' })
  ]);
  const url = 'https://channel.example/list/feed.xml';
  await db.playlists.put({ url, placeId: 'channel', title: 'A', members: ['tag:two'], read: '' });
  const listed = async (playlists: string[]) =>
    [...(await byId(laneOf({ playlists }))).values()]
      .filter((c) => c.isInPlaylist)
      .map((c) => c.item.id);
  assert.deepEqual(await listed([url]), ['v2']);
  assert.deepEqual(await listed(['https://gone.example/feed.xml']), []);
});

test('a post whose marks were lost is known by the text that was published', async () => {
  const html = `<p>${TEXT}</p>`;
  const payload = aPostPayload({ title: 'Made here', html, status: 'draft' });
  const fields = { key: 'k', itemId: 'v', placeId: 'blog', payload, laneId: '' };
  await db.outbox.put({ ...newEntry({ ...fields, state: 'planned' }, 1), state: 'published' });
  await db.items.bulkPut([
    anItem({ id: 'p1', kind: 'post' }),
    anItem({ id: 'p2', kind: 'post' }),
    anItem({ id: 'p3', kind: 'post', origin: 'k' })
  ]);
  const changed = TEXT.replace('in good light', 'by the window');
  await db.bodies.bulkPut([
    { id: 'p1', html: `<article><h2>Reeds</h2><p>${changed}</p></article>` },
    { id: 'p2', html: '<p>Retting flax takes dew, sun and patience, for three weeks or four.</p>' },
    { id: 'p3', html }
  ]);
  const found = await byId(laneOf({ places: ['blog'] }));
  assert.equal(found.get('p1')?.likeMade, 'Made here');
  assert.equal(found.get('p2')?.likeMade, null);
  // What has its mark is known by that.
  assert.equal(found.get('p3')?.likeMade, null);
});
