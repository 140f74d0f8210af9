import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { networkSchema } from '../core/model/network.ts';
import { placeSchema } from '../core/model/place.ts';
import { anItem, aPostPayload } from '../core/testing.ts';
import { db } from './db.ts';
import { setAside } from './decisions.ts';
import { applyReading, idsOf } from './items.ts';
import { note } from './journal.ts';
import { saveKey, sealKey } from './keys.ts';
import { addNetwork, getNetwork, patchNetwork } from './networks.ts';
import {
  entryStore,
  pendingKeys,
  requestPublishAll,
  requestPublish,
  requestRemove
} from './outbox.ts';
import { addPlace, getPlace, patchPlace, removePlace } from './places.ts';
import { pairAgain } from '../workers/pairAgain.ts';

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

const payload = aPostPayload({ title: 'One', status: 'draft' });
const wish = { key: 'k', itemId: 'v', placeId: 'b', payload };

test('the same key wanted from two sides at once is one entry', async () => {
  await Promise.all([
    requestPublish(wish, 1),
    requestPublish({ ...wish, payload: { ...payload, title: 'Two' } }, 1)
  ]);
  assert.equal(await db.outbox.count(), 1);
  const entry = await entryStore.load('k');
  assert.equal(entry?.revision, 2);
  assert.equal(entry?.payload.title, 'Two');
});

test('what a worker learned does not undo a newer wish', async () => {
  const begun = await requestPublish(wish, 1);
  await requestRemove('k', 2);
  await entryStore.save({
    ...begun,
    state: 'published',
    url: 'https://b.example/1',
    publishedRevision: 1
  });
  const entry = await entryStore.load('k');
  assert.equal(entry?.wanted, 'removed');
  assert.equal(entry?.state, 'waiting');
  assert.equal(entry?.url, 'https://b.example/1');
  assert.deepEqual(
    (await pendingKeys()).map((u) => u.key),
    ['k']
  );
});

test('pairing writes only what changed', async () => {
  const video = anItem({ id: 'v', kind: 'video' });
  const post = anItem({ id: 'p', kind: 'post', embeds: [video.embedUrl] });
  await applyReading(
    'channel',
    { items: [video], bodies: [], isListed: () => true },
    await idsOf('channel')
  );
  await applyReading(
    'blog',
    { items: [post], bodies: [], isListed: () => true },
    await idsOf('blog')
  );
  assert.deepEqual(await pairAgain(), { twins: 1, changed: 1 });
  assert.deepEqual(await pairAgain(), { twins: 1, changed: 0 });
  await setAside('v', '2026-01-01T00:00:00.000Z');
  assert.deepEqual(await pairAgain(), { twins: 1, changed: 1 });
  assert.equal((await db.twins.get('v'))?.standing, 'set-aside');
});

test('items that a feed would tell and does not are gone; others stay', async () => {
  const old = anItem({ id: 'old', kind: 'post', published: '2020-01-01T00:00:00.000Z' });
  const gone = anItem({ id: 'gone', kind: 'post' });
  await applyReading(
    'blog',
    { items: [old, gone], bodies: [{ id: 'gone', html: 'x' }], isListed: () => true },
    await idsOf('blog')
  );
  const kept = anItem({ id: 'kept', kind: 'post' });
  await applyReading(
    'blog',
    { items: [kept], bodies: [], isListed: (item) => (item.published ?? '') > '2025' },
    await idsOf('blog')
  );
  assert.deepEqual((await db.items.toArray()).map((i) => i.id).sort(), ['kept', 'old']);
  assert.equal(await db.bodies.count(), 0);
});

test('of two readings at the same instant, none takes out what the other has just brought', async () => {
  const items = (ids: string[]) => ids.map((id) => anItem({ id, kind: 'video' }));
  const isListed = () => true;
  const began = await idsOf('channel');
  // The second began before the first was applied, and saw an older state of the feed.
  await applyReading('channel', { items: items(['a', 'b', 'c']), bodies: [], isListed }, began);
  await applyReading('channel', { items: items(['a']), bodies: [], isListed }, began);
  assert.deepEqual((await idsOf('channel')).sort(), ['a', 'b', 'c']);
  // A reading that begins now takes out what is gone.
  const now = await idsOf('channel');
  await applyReading('channel', { items: items(['a']), bodies: [], isListed }, now);
  assert.deepEqual(await idsOf('channel'), ['a']);
});

test('a place that was disconnected while it was checked does not come back', async () => {
  const place = placeSchema.parse({
    id: 'blog',
    kind: 'blog',
    url: 'https://blog.example/',
    feedUrl: 'https://blog.example/feed',
    title: 'Blog',
    author: '',
    micropub: '',
    tokenEndpoint: '',
    rights: ['read'],
    hasKey: true,
    origins: [],
    linked: '',
    checked: '',
    problem: null
  });
  await addPlace(place);
  await patchPlace('blog', { title: 'The blog' });
  assert.equal((await getPlace('blog'))?.title, 'The blog');
  await removePlace('blog');
  await patchPlace('blog', { checked: '2026-05-01T10:00:00Z', problem: null });
  assert.equal(await getPlace('blog'), null);
});

test('a patch changes the fields that it names and no others, whatever their defaults', async () => {
  const network = networkSchema.parse({
    id: 'n',
    actor: 'https://n.example/actor',
    url: 'https://n.example/',
    title: 'Notes',
    about: '',
    outbox: 'https://n.example/outbox',
    limitsUrl: '',
    tagCounts: '',
    uploadMedia: 'https://n.example/media',
    limits: { text: 500, picture: 'optional', hashtags: 3 },
    allowance: null,
    hasKey: true,
    isUsual: true,
    origins: [],
    linked: '',
    checked: '',
    problem: null
  });
  await addNetwork(network);
  await patchNetwork('n', { checked: 'now' });
  assert.deepEqual(await getNetwork('n'), { ...network, checked: 'now' });
});

test('the parts of a thread are written down all together, or none of them', async () => {
  const broken = { ...wish, key: 'k3', payload: { ...payload, status: 'nowhere' } };
  const parts = [{ ...wish, key: 'k1' }, { ...wish, key: 'k2' }, broken as unknown as typeof wish];
  await assert.rejects(requestPublishAll(parts, 1));
  assert.equal(await db.outbox.count(), 0);
  await requestPublishAll(parts.slice(0, 2), 1);
  assert.equal(await db.outbox.count(), 2);
});

test('disconnecting a place takes its key and its items along', async () => {
  await saveKey('blog', await sealKey('secret'));
  await applyReading(
    'blog',
    { items: [anItem({ id: 'p', kind: 'post' })], bodies: [], isListed: () => true },
    await idsOf('blog')
  );
  await removePlace('blog');
  assert.equal(await db.keys.count(), 0);
  assert.equal(await db.items.count(), 0);
});

test('the journal tells the newest first', async () => {
  await note({ what: 'connected', title: 'a' });
  await note({ what: 'read', title: 'b', count: 3 });
  assert.deepEqual(
    (await db.journal.orderBy('id').reverse().toArray()).map((l) => [l.what, l.title, l.count]),
    [
      ['read', 'b', 3],
      ['connected', 'a', null]
    ]
  );
});
