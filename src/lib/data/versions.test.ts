import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { Database, giveWay, isOfLaterVersion, onBlocked, onReplaced } from './db.ts';

/** Opens a database as another version of the application would. */
const openAs = (name: string, version: number) =>
  new Promise<IDBDatabase>((done, fail) => {
    const asked = indexedDB.open(name, version);
    asked.onsuccess = () => done(asked.result);
    asked.onerror = () => fail(asked.error);
    asked.onupgradeneeded = () => {
      if (!asked.result.objectStoreNames.contains('of-tomorrow'))
        asked.result.createObjectStore('of-tomorrow');
    };
  });

test('data of a later version is left alone', async () => {
  const first = new Database('tomorrow');
  assert.equal(await isOfLaterVersion(first), false);
  await first.settings.put({ name: 'a', value: 1 });
  first.close();
  (await openAs('tomorrow', 1000)).close();
  const old = new Database('tomorrow');
  assert.equal(await isOfLaterVersion(old), true);
  await assert.rejects(() => old.settings.put({ name: 'a', value: 2 }));
  const later = await openAs('tomorrow', 1000);
  const kept = await new Promise((done) => {
    const read = later.transaction('settings').objectStore('settings').get('a');
    read.onsuccess = () => done(read.result);
  });
  assert.deepEqual(kept, { name: 'a', value: 1 });
  later.close();
});

test('a tab gives way to another that brings in a later version, and says so', async () => {
  const here = giveWay(new Database('shared'));
  await here.settings.put({ name: 'a', value: 1 });
  let told = 0;
  const stop = onReplaced(() => told++);
  (await openAs('shared', 1000)).close();
  assert.equal(told, 1);
  await assert.rejects(() => here.settings.put({ name: 'a', value: 2 }));
  stop();
});

test('a version that waits for a tab of an earlier one says so, and goes on once that is closed', async () => {
  const earlier = await openAs('held', 10);
  const here = giveWay(new Database('held'));
  const isTold = new Promise<void>((told) => {
    const stop = onBlocked(() => {
      stop();
      told();
    });
  });
  const written = here.settings.put({ name: 'a', value: 1 });
  await isTold;
  earlier.close();
  await written;
  assert.deepEqual(await here.settings.get('a'), { name: 'a', value: 1 });
});
