import { PlaceError } from '../core/model/place.ts';
import { db, type KeptKey } from './db.ts';
import { ALGORITHM, forgetOwnKey, newOwnKey, ownKey } from './keyOfKeys.ts';

/**
 * The keys of places. They stand apart from everything that is exported, shown or noted, and are kept
 * encrypted (AES-GCM) by the browser's own key.
 */

/** A key as it is kept. */
export type SealedKey = Required<Pick<KeptKey, 'iv' | 'sealed'>>;

async function seal(key: string, by: CryptoKey): Promise<SealedKey> {
  const iv = crypto.getRandomValues(new Uint8Array(12));
  const text = new TextEncoder().encode(key);
  const sealed = await crypto.subtle.encrypt({ name: ALGORITHM, iv }, by, text);
  return { iv, sealed: new Uint8Array(sealed) };
}

async function open({ iv, sealed }: SealedKey, by: CryptoKey): Promise<string> {
  try {
    return new TextDecoder().decode(
      await crypto.subtle.decrypt({ name: ALGORITHM, iv }, by, sealed)
    );
  } catch {
    return '';
  }
}

/**
 * Encrypts a key; before a transaction, which would not wait for it.
 * @throws PlaceError `keys-locked`
 */
export const sealKey = async (key: string): Promise<SealedKey> => seal(key, await ownKey());

export const saveKey = (placeId: string, sealed: SealedKey): Promise<unknown> =>
  db.keys.put({ placeId, ...sealed });

/**
 * @returns an empty text where there is none, or where it cannot be read any more
 * @throws PlaceError `keys-locked`
 */
export async function readKey(placeId: string): Promise<string> {
  const kept = await db.keys.get(placeId);
  if (!kept) return '';
  // Kept before keys were encrypted.
  if (kept.key !== undefined) {
    await saveKey(placeId, await sealKey(kept.key));
    return kept.key;
  }
  const { iv, sealed } = kept;
  return iv && sealed ? open({ iv, sealed }, await ownKey()) : '';
}

export const forgetKey = (placeId: string): Promise<void> => db.keys.delete(placeId);

/**
 * Encrypts all keys anew, by a key that only the passphrase opens; an empty one takes it away.
 * @throws PlaceError `keys-locked`, or `storage` where another tab keeps changing keys meanwhile
 */
export async function setPassphrase(passphrase: string): Promise<void> {
  // Made once, as it takes most of a second: other tabs may keep keys meanwhile.
  const own = await newOwnKey(passphrase);
  for (let attempt = 0; attempt < 10; attempt++) {
    const before = await db.keys.toArray();
    const read = await Promise.all(
      before.map(async ({ placeId }) => ({ placeId, key: await readKey(placeId) }))
    );
    const rows = await Promise.all(
      read.map(async ({ placeId, key }) => ({ placeId, ...(await seal(key, own.key)) }))
    );
    const isDone = await db.transaction('rw', db.keys, db.settings, async () => {
      // Reading may have encrypted what was kept before keys were.
      const now = await db.keys.toArray();
      if (now.length !== before.length) return false;
      const known = new Map(before.map((k) => [k.placeId, k.iv?.join()]));
      const isNew = ({ placeId, iv }: KeptKey) =>
        !known.has(placeId) || (known.get(placeId) ?? iv?.join()) !== iv?.join();
      if (now.some(isNew)) return false;
      await db.keys.bulkPut(rows);
      await own.write();
      return true;
    });
    if (!isDone) continue;
    own.done();
    return;
  }
  throw new PlaceError({ kind: 'storage' });
}

/** Forgets all keys and the passphrase with them, for whoever does not know it any more. */
export async function forgetAllKeys(): Promise<string[]> {
  const places = await db.keys.toCollection().primaryKeys();
  await db.keys.clear();
  await forgetOwnKey();
  return places;
}
