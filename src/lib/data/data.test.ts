import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import type { PostPayload } from '../core/lanes/outbox.ts';
import { anItem } from '../core/testing.ts';
import { db } from './db.ts';
import { setAside } from './decisions.ts';
import { replaceItems } from './items.ts';
import { note } from './journal.ts';
import { saveKey } from './keys.ts';
import { shelf, unsettledKeys, wantPlaced, wantRemoved } from './outbox.ts';
import { removePlace } from './places.ts';
import { pairAgain } from './twins.ts';

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

const payload: PostPayload = {
  ...{ title: 'One', html: '', slug: '', excerpt: '', author: '', categories: [], tags: [] },
  ...{ comments: 'open', picture: null, status: 'draft', date: null }
};
const wish = { key: 'k', itemId: 'v', placeId: 'b', payload };

test('the same key wanted from two sides at once is one entry', async () => {
  await Promise.all([
    wantPlaced(wish, 1),
    wantPlaced({ ...wish, payload: { ...payload, title: 'Two' } }, 1)
  ]);
  assert.equal(await db.outbox.count(), 1);
  const entry = await shelf.load('k');
  assert.equal(entry?.revision, 2);
  assert.equal(entry?.payload.title, 'Two');
});

test('what a worker learned does not undo a newer wish', async () => {
  const begun = await wantPlaced(wish, 1);
  await wantRemoved('k', 2);
  await shelf.save({ ...begun, state: 'placed', url: 'https://b.example/1', placedRevision: 1 });
  const entry = await shelf.load('k');
  assert.equal(entry?.wanted, 'removed');
  assert.equal(entry?.state, 'waiting');
  assert.equal(entry?.url, 'https://b.example/1');
  assert.deepEqual(
    (await unsettledKeys()).map((u) => u.key),
    ['k']
  );
});

test('pairing writes only what changed', async () => {
  const video = anItem({ id: 'v', kind: 'video' });
  const post = anItem({ id: 'p', kind: 'post', embeds: [video.embedUrl] });
  await replaceItems('channel', [video], [], () => true);
  await replaceItems('blog', [post], [], () => true);
  assert.deepEqual(await pairAgain(), { twins: 1, changed: 1 });
  assert.deepEqual(await pairAgain(), { twins: 1, changed: 0 });
  await setAside('v', '2026-01-01T00:00:00.000Z');
  assert.deepEqual(await pairAgain(), { twins: 1, changed: 1 });
  assert.equal((await db.twins.get('v'))?.standing, 'set-aside');
});

test('items that a feed would tell and does not are gone; others stay', async () => {
  const old = anItem({ id: 'old', kind: 'post', published: '2020-01-01T00:00:00.000Z' });
  const gone = anItem({ id: 'gone', kind: 'post' });
  await replaceItems('blog', [old, gone], [{ id: 'gone', html: 'x' }], () => true);
  const kept = anItem({ id: 'kept', kind: 'post' });
  await replaceItems('blog', [kept], [], (item) => (item.published ?? '') > '2025');
  assert.deepEqual((await db.items.toArray()).map((i) => i.id).sort(), ['kept', 'old']);
  assert.equal(await db.bodies.count(), 0);
});

test('unlinking a place takes its key and its items along', async () => {
  await saveKey('blog', 'secret');
  await replaceItems('blog', [anItem({ id: 'p', kind: 'post' })], [], () => true);
  await removePlace('blog');
  assert.equal(await db.keys.count(), 0);
  assert.equal(await db.items.count(), 0);
});

test('the journal tells the newest first', async () => {
  await note({ what: 'linked', title: 'a' });
  await note({ what: 'read', title: 'b', count: 3 });
  assert.deepEqual(
    (await db.journal.orderBy('id').reverse().toArray()).map((l) => [l.what, l.title, l.count]),
    [
      ['read', 'b', 3],
      ['linked', 'a', null]
    ]
  );
});
