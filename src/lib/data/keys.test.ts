import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { clearEverything, restoreEverything } from './everything.ts';
import { db } from './db.ts';
import { keyLock, lockKeys, unlockKeys } from './keyOfKeys.ts';
import { forgetAllKeys, forgetKey, readKey, saveKey, sealKey, setPassphrase } from './keys.ts';

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

test('under a passphrase keys are read only after it was given', async () => {
  await keep('blog');
  await keep('channel', 'another');
  await setPassphrase('linen and wool');
  assert.equal(await keyLock(), 'unlocked');
  assert.equal(await readKey('blog'), KEY);
  lockKeys();
  assert.equal(await keyLock(), 'locked');
  await assert.rejects(readKey('blog'), { message: 'keys-locked' });
  await assert.rejects(keep('more'), { message: 'keys-locked' });
  assert.equal(await unlockKeys('linen and woo'), false);
  await assert.rejects(readKey('blog'), { message: 'keys-locked' });
  assert.equal(await unlockKeys('linen and wool'), true);
  assert.equal(await readKey('channel'), 'another');
});

test('what lies in the database under a passphrase opens no key', async () => {
  await keep('blog');
  await setPassphrase('linen and wool');
  const own = (await db.settings.get('keyOfKeys'))?.value;
  assert.ok(!(own instanceof CryptoKey));
  assert.doesNotMatch(await copied(), /secret-key|linen/);
});

test('a passphrase is changed and taken away with the keys as they are', async () => {
  await keep('blog');
  await setPassphrase('linen and wool');
  await setPassphrase('silk and hemp');
  lockKeys();
  assert.equal(await unlockKeys('linen and wool'), false);
  assert.equal(await unlockKeys('silk and hemp'), true);
  await setPassphrase('');
  assert.equal(await keyLock(), 'open');
  assert.equal(await readKey('blog'), KEY);
});

test('whoever lost the passphrase forgets the keys, and begins with new ones', async () => {
  await keep('blog');
  await setPassphrase('linen and wool');
  lockKeys();
  assert.deepEqual(await forgetAllKeys(), ['blog']);
  assert.equal(await keyLock(), 'open');
  assert.equal(await readKey('blog'), '');
  await keep('blog', 'new');
  assert.equal(await readKey('blog'), 'new');
});
