import { db, type KeptKey } from './db.ts';

/**
 * The keys of places. They stand apart from everything that is exported, shown or noted, and are kept
 * encrypted (AES-GCM) by a key of the browser's own that cannot be taken out of it.
 */
const OWN_KEY = 'keyOfKeys';
const ALGORITHM = 'AES-GCM';

/** A key as it is kept. */
export type SealedKey = Required<Pick<KeptKey, 'iv' | 'sealed'>>;

/** The browser's own key, made when first needed; another tab may have made one meanwhile. */
async function ownKey(): Promise<CryptoKey> {
  const known = (await db.settings.get(OWN_KEY))?.value as CryptoKey | undefined;
  if (known) return known;
  const made = await crypto.subtle.generateKey({ name: ALGORITHM, length: 256 }, false, [
    'encrypt',
    'decrypt'
  ]);
  return db.transaction('rw', db.settings, async () => {
    const there = (await db.settings.get(OWN_KEY))?.value as CryptoKey | undefined;
    if (!there) await db.settings.put({ name: OWN_KEY, value: made });
    return there ?? made;
  });
}

/** Encrypts a key; before a transaction, which would not wait for it. */
export async function sealKey(key: string): Promise<SealedKey> {
  const iv = crypto.getRandomValues(new Uint8Array(12));
  const text = new TextEncoder().encode(key);
  const sealed = await crypto.subtle.encrypt({ name: ALGORITHM, iv }, await ownKey(), text);
  return { iv, sealed: new Uint8Array(sealed) };
}

export const saveKey = (placeId: string, sealed: SealedKey): Promise<unknown> =>
  db.keys.put({ placeId, ...sealed });

/** @returns an empty text where there is none, or where it cannot be read any more */
export async function readKey(placeId: string): Promise<string> {
  const kept = await db.keys.get(placeId);
  if (!kept) return '';
  // Kept before keys were encrypted.
  if (kept.key !== undefined) {
    await saveKey(placeId, await sealKey(kept.key));
    return kept.key;
  }
  const { iv, sealed } = kept;
  if (!iv || !sealed) return '';
  try {
    const text = await crypto.subtle.decrypt({ name: ALGORITHM, iv }, await ownKey(), sealed);
    return new TextDecoder().decode(text);
  } catch {
    return '';
  }
}

export const forgetKey = (placeId: string): Promise<void> => db.keys.delete(placeId);
