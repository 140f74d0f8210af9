import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { clearEverything, restoreEverything } from './everything.ts';
import { db } from './db.ts';
import { forgetKey, readKey, saveKey, sealKey } from './keys.ts';

const KEY = 'a-secret-key-of-a-blog';
const keep = async (id: string, key = KEY) => saveKey(id, await sealKey(key));
/** All that a copy of the database holds, as text. */
const copied = async (): Promise<string> => {
  const rows = await Promise.all(db.tables.map((table) => table.toArray()));
  return rows
    .flat()
    .map((row) =>
      JSON.stringify(row, (_, v) =>
        v instanceof Uint8Array ? [...v].map((b) => String.fromCharCode(b)).join('') : v
      )
    )
    .join('\n');
};

beforeEach(() => Promise.all(db.tables.map((table) => table.clear())));

test('a key is read as it was given, and does not stand in the database', async () => {
  await keep('blog');
  await keep('other', 'ü'.repeat(500));
  assert.equal(await readKey('blog'), KEY);
  assert.equal(await readKey('other'), 'ü'.repeat(500));
  assert.equal(await readKey('nobody'), '');
  assert.doesNotMatch(await copied(), /secret-key/);
  await forgetKey('blog');
  assert.equal(await readKey('blog'), '');
});

test('the key that encrypts them cannot be taken out', async () => {
  await keep('blog');
  const own = (await db.settings.get('keyOfKeys'))?.value as CryptoKey;
  assert.equal(own.extractable, false);
  await assert.rejects(crypto.subtle.exportKey('raw', own));
});

test('two that keep a key at once use one and the same', async () => {
  await Promise.all(['a', 'b', 'c'].map((id) => keep(id, id)));
  for (const id of ['a', 'b', 'c']) assert.equal(await readKey(id), id);
});

test('a key of before is read, and encrypted from then on', async () => {
  await db.keys.put({ placeId: 'old', key: KEY } as never);
  assert.equal(await readKey('old'), KEY);
  assert.doesNotMatch(await copied(), /secret-key/);
  assert.equal(await readKey('old'), KEY);
});

test('after a start anew that is undone keys can be read again', async () => {
  await keep('blog');
  await clearEverything();
  await keep('blog', 'another');
  assert.equal(await readKey('blog'), 'another');
  await restoreEverything();
  assert.equal(await readKey('blog'), KEY);
});

test('a key that cannot be decrypted any more is none', async () => {
  await keep('blog');
  await db.settings.delete('keyOfKeys');
  assert.equal(await readKey('blog'), '');
});
