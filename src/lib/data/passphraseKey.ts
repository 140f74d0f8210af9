/** Rounds of PBKDF2 with SHA-256, as OWASP's Password Storage Cheat Sheet advises. */
export const ROUNDS = 600_000;

/** A key (AES-GCM, 256 bits) that is derived from a passphrase by PBKDF2 with SHA-256. */
export async function passphraseKey(
  passphrase: string,
  { salt, rounds }: { salt: Uint8Array<ArrayBuffer>; rounds: number },
  usages: KeyUsage[]
): Promise<CryptoKey> {
  const text = new TextEncoder().encode(passphrase.normalize('NFC'));
  const base = await crypto.subtle.importKey('raw', text, 'PBKDF2', false, ['deriveKey']);
  const how = { name: 'PBKDF2', hash: 'SHA-256', salt, iterations: rounds };
  return crypto.subtle.deriveKey(how, base, { name: 'AES-GCM', length: 256 }, false, usages);
}
