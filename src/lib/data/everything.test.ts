import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { db } from './db.ts';
import { clearEverything, forgetCleared, restoreEverything } from './everything.ts';

test('what was cleared comes back within a day, and is forgotten after it', async () => {
  await db.keys.put({ placeId: 'blog', key: 'secret' });
  await clearEverything('empty');
  assert.equal(await db.keys.count(), 0);
  await forgetCleared(Date.now() + 80_000_000);
  assert.equal(await restoreEverything(), true);
  assert.equal((await db.keys.get('blog'))?.key, 'secret');
  await clearEverything('empty');
  await forgetCleared(Date.now() + 90_000_000);
  assert.equal(await restoreEverything(), false);
  assert.equal(await db.keys.count(), 0);
});
