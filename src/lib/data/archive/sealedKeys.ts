import { z } from 'zod';
import { db } from '../db.ts';
import { readKey, sealKey } from '../keys.ts';
import { passphraseKey, ROUNDS } from '../passphraseKey.ts';
import type { ImportChoice } from './importArchive.ts';

/** Most rounds that are reckoned for a file of somebody. */
const MOST_ROUNDS = 10_000_000;

const base64 = z.base64();
/** The keys of places in an archive: a list of them as JSON, encrypted by a passphrase. Bytes are Base64. */
const sealedKeysSchema = z.object({
  derivation: z.literal('PBKDF2'),
  hash: z.literal('SHA-256'),
  rounds: z.number().int().min(1).max(MOST_ROUNDS),
  salt: base64,
  cipher: z.literal('AES-GCM'),
  iv: base64,
  sealed: base64
});
const openKeysSchema = z.array(z.object({ placeId: z.string(), key: z.string() }));
type OpenKeys = z.infer<typeof openKeysSchema>;

const toBase64 = (bytes: Uint8Array): string =>
  btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''));
const fromBase64 = (text: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(text), (c) => c.charCodeAt(0));

/**
 * All keys of this browser as a file that only the passphrase opens; empty where there are none.
 * @throws PlaceError `keys-locked`
 */
export async function sealKeys(passphrase: string): Promise<string> {
  const ids = await db.keys.toCollection().primaryKeys();
  const keys: OpenKeys = [];
  for (const placeId of ids) {
    const key = await readKey(placeId);
    if (key) keys.push({ placeId, key });
  }
  if (keys.length === 0) return '';
  const salt = crypto.getRandomValues(new Uint8Array(16));
  const iv = crypto.getRandomValues(new Uint8Array(12));
  const by = await passphraseKey(passphrase, { salt, rounds: ROUNDS }, ['encrypt']);
  const text = new TextEncoder().encode(JSON.stringify(keys));
  const sealed = await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, by, text);
  const file: z.infer<typeof sealedKeysSchema> = {
    derivation: 'PBKDF2',
    hash: 'SHA-256',
    rounds: ROUNDS,
    salt: toBase64(salt),
    cipher: 'AES-GCM',
    iv: toBase64(iv),
    sealed: toBase64(new Uint8Array(sealed))
  };
  return `${JSON.stringify(file, null, 2)}\n`;
}

/**
 * The keys of an archive, encrypted by this browser's own key.
 * @returns null where it is another passphrase, or the file is damaged
 * @throws PlaceError `keys-locked`
 */
export async function openSealedKeys(
  file: string,
  passphrase: string
): Promise<ImportChoice['keys'] | null> {
  const open = await decrypted(file, passphrase);
  return (
    open &&
    Promise.all(open.map(async ({ placeId, key }) => ({ placeId, ...(await sealKey(key)) })))
  );
}

async function decrypted(file: string, passphrase: string): Promise<OpenKeys | null> {
  try {
    const { salt, iv, sealed, rounds } = sealedKeysSchema.parse(JSON.parse(file));
    const by = await passphraseKey(passphrase, { salt: fromBase64(salt), rounds }, ['decrypt']);
    const how = { name: 'AES-GCM', iv: fromBase64(iv) };
    const text = await crypto.subtle.decrypt(how, by, fromBase64(sealed));
    return openKeysSchema.parse(JSON.parse(new TextDecoder().decode(text)));
  } catch {
    return null;
  }
}
