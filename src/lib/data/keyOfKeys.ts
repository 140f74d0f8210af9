import { z } from 'zod';
import { PlaceError } from '../core/model/place.ts';
import { db } from './db.ts';
import { passphraseKey, ROUNDS } from './passphraseKey.ts';

/**
 * The browser's own key, by which the keys of places are encrypted. It cannot be taken out of the browser,
 * or, where the user set a passphrase, it is kept wrapped by that and known only to tabs in which
 * it was given.
 */
const OWN_KEY = 'keyOfKeys';
export const ALGORITHM = 'AES-GCM';
const OWN = { name: ALGORITHM, length: 256 };

const bytesSchema = z.custom<Uint8Array<ArrayBuffer>>((value) => value instanceof Uint8Array);
const wrappedSchema = z.object({
  salt: bytesSchema,
  rounds: z.number(),
  iv: bytesSchema,
  wrapped: bytesSchema
});
type Wrapped = z.infer<typeof wrappedSchema>;

/** What was unwrapped in this tab, and from what. */
let unlocked: { from: string; key: CryptoKey } | null = null;
/** Tabs tell each other, so that the passphrase is asked for once. */
const tabs = 'BroadcastChannel' in globalThis ? new BroadcastChannel('key-of-keys') : null;
const toldSchema = z.object({
  ask: z.boolean().default(false),
  lock: z.boolean().default(false),
  unlocked: z.object({ from: z.string(), key: z.custom<CryptoKey>() }).nullable().default(null)
});
tabs?.addEventListener('message', ({ data }) => {
  const told = toldSchema.safeParse(data).data;
  if (told?.ask && unlocked) tabs.postMessage({ unlocked });
  if (told?.lock) unlocked = null;
  if (told?.unlocked) unlocked = told.unlocked;
  if (told?.lock || told?.unlocked) for (const tell of listeners) tell();
});
tabs?.postMessage({ ask: true });
// A test, or a page that is left, does not wait for other tabs.
if (tabs && 'unref' in tabs) (tabs as unknown as { unref(): void }).unref();

const listeners = new Set<() => void>();
/** Tells when the keys were locked or unlocked, in whatever tab. @returns what stops it */
export function onLockChange(tell: () => void): () => void {
  listeners.add(tell);
  return () => listeners.delete(tell);
}
function changeTo(now: typeof unlocked): void {
  unlocked = now;
  tabs?.postMessage(now ? { unlocked: now } : { lock: true });
  for (const tell of listeners) tell();
}

const nameOf = ({ iv, salt }: Wrapped): string => [...salt, ...iv].join();

async function kept(): Promise<CryptoKey | Wrapped | null> {
  const value = (await db.settings.get(OWN_KEY))?.value;
  if (value === undefined) return null;
  return wrappedSchema.safeParse(value).data ?? (value as CryptoKey);
}
const isWrapped = (key: CryptoKey | Wrapped | null): key is Wrapped =>
  key !== null && 'wrapped' in key;

/** How the keys of this browser are kept. */
export async function keyLock(): Promise<'open' | 'locked' | 'unlocked'> {
  const own = await kept();
  if (!isWrapped(own)) return 'open';
  return unlocked?.from === nameOf(own) ? 'unlocked' : 'locked';
}

/**
 * The browser's own key, made when first needed; another tab may have made one meanwhile.
 * @throws PlaceError `keys-locked`
 */
export async function ownKey(): Promise<CryptoKey> {
  const own = await kept();
  if (isWrapped(own)) {
    if (unlocked?.from === nameOf(own)) return unlocked.key;
    throw new PlaceError({ kind: 'keys-locked' });
  }
  if (own) return own;
  const made = await crypto.subtle.generateKey(OWN, false, ['encrypt', 'decrypt']);
  return db.transaction('rw', db.settings, async () => {
    const there = (await db.settings.get(OWN_KEY))?.value as CryptoKey | undefined;
    if (!there) await db.settings.put({ name: OWN_KEY, value: made });
    return there ?? made;
  });
}

const WRAPPING: KeyUsage[] = ['wrapKey', 'unwrapKey'];

async function unwrap(own: Wrapped, passphrase: string): Promise<CryptoKey | null> {
  const by = await passphraseKey(passphrase, own, WRAPPING);
  const how = { name: ALGORITHM, iv: own.iv };
  try {
    return await crypto.subtle.unwrapKey('raw', own.wrapped, by, how, OWN, false, [
      'encrypt',
      'decrypt'
    ]);
  } catch {
    return null;
  }
}

/** Unlocks the keys in all tabs. @returns whether it was the passphrase */
export async function unlockKeys(passphrase: string): Promise<boolean> {
  const own = await kept();
  if (!isWrapped(own)) return true;
  const key = await unwrap(own, passphrase);
  if (key) changeTo({ from: nameOf(own), key });
  return key !== null;
}

export const lockKeys = (): void => changeTo(null);

/** A new own key and how it is kept; with a passphrase, wrapped by it. */
export interface NewOwnKey {
  key: CryptoKey;
  /** To be written within the transaction that writes what it encrypts. */
  write: () => Promise<unknown>;
  /** To be called once that is done. */
  done: () => void;
}
export async function newOwnKey(passphrase: string): Promise<NewOwnKey> {
  if (!passphrase) {
    const key = await crypto.subtle.generateKey(OWN, false, ['encrypt', 'decrypt']);
    const write = () => db.settings.put({ name: OWN_KEY, value: key });
    return { key, write, done: () => changeTo(null) };
  }
  const open = await crypto.subtle.generateKey(OWN, true, ['encrypt', 'decrypt']);
  const [salt, iv] = [16, 12].map((n) => crypto.getRandomValues(new Uint8Array(n))) as [
    Uint8Array<ArrayBuffer>,
    Uint8Array<ArrayBuffer>
  ];
  const by = await passphraseKey(passphrase, { salt, rounds: ROUNDS }, WRAPPING);
  const wrapped = await crypto.subtle.wrapKey('raw', open, by, { name: ALGORITHM, iv });
  const own: Wrapped = { salt, rounds: ROUNDS, iv, wrapped: new Uint8Array(wrapped) };
  const key = await unwrap(own, passphrase);
  if (!key) throw new Error('The key that was just wrapped cannot be unwrapped.');
  return {
    key,
    write: () => db.settings.put({ name: OWN_KEY, value: own }),
    done: () => changeTo({ from: nameOf(own), key })
  };
}

/** Forgets the own key, wrapped or not: with it nothing that it encrypted can be read any more. */
export async function forgetOwnKey(): Promise<void> {
  await db.settings.delete(OWN_KEY);
  changeTo(null);
}
