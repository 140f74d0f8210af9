import { LONGEST } from '../text/tame.ts';

/** Query parameters that tell where a reader came from or begins, not what is read. */
const INCIDENTAL = /^(utm_\w+|fbclid|gclid|mc_[ce]id|ref|feature|si|t|start|time_continue)$/;

/**
 * One spelling for the many addresses of the same page: without scheme, `www.`, fragment,
 * trailing slash and incidental parameters. Empty for what is not an http address.
 */
export function canonicalAddress(address: string): string {
  if (address.length > LONGEST.address || !URL.canParse(address)) return '';
  const url = new URL(address);
  if (url.protocol !== 'http:' && url.protocol !== 'https:') return '';
  for (const name of [...url.searchParams.keys()]) {
    if (INCIDENTAL.test(name)) url.searchParams.delete(name);
  }
  url.searchParams.sort();
  const path = url.pathname.replace(/(?<!\/)\/+$/, '');
  return `${url.host.replace(/^www\./, '')}${path}${url.search}`;
}

/** An absolute http(s) address, resolved against a base if there is one; empty where there is none. */
export function absoluteAddress(address: string | undefined, base: string): string {
  if (!address || address.length > LONGEST.address) return '';
  try {
    const url = new URL(address.trim(), base || undefined);
    return url.protocol === 'http:' || url.protocol === 'https:' ? url.href : '';
  } catch {
    return '';
  }
}

/** Where an address has the second to begin at (schema.org, `SeekToAction`). */
const SEEK_PLACE = '{seek_to_second_number}';

/** An absolute http(s) address with a place for the second to begin at; empty where there is none. */
export function seekAddress(target: string, base: string): string {
  if (!target.includes(SEEK_PLACE)) return '';
  // Any number keeps the address an address while it is checked.
  const stand = '31415926535';
  return absoluteAddress(target.replaceAll(SEEK_PLACE, stand), base).replaceAll(stand, SEEK_PLACE);
}

/** The address that begins at a second, checked once more; empty where it is no web address. */
export const addressAt = (seekTo: string, seconds: number): string =>
  absoluteAddress(seekTo.replaceAll(SEEK_PLACE, String(Math.floor(seconds))), seekTo);

/** An address that a key may be sent to: over https, or to this machine; empty otherwise. */
export function keyAddress(address: string): string {
  if (!URL.canParse(address)) return '';
  const { protocol, hostname } = new URL(address);
  const isHere = /^(?:localhost|127(?:\.\d+){3}|\[::1\])$/.test(hostname);
  return protocol === 'https:' || (protocol === 'http:' && isHere) ? address : '';
}

/** What a person pasted, as an address: the scheme may be missing. Null if it cannot be one. */
export function addressFromInput(input: string): string | null {
  const text = input.trim().replace(/^<|>$/g, '');
  if (!text || /\s/.test(text)) return null;
  const withScheme = /^[a-z][a-z0-9+.-]*:\/\//i.test(text) ? text : `https://${text}`;
  if (!URL.canParse(withScheme)) return null;
  const url = new URL(withScheme);
  if (url.protocol !== 'http:' && url.protocol !== 'https:') return null;
  return url.hostname.includes('.') || url.hostname === 'localhost' ? url.href : null;
}

/** Whether two addresses belong to one site; `www.` and the like before its name make no difference. */
export function isSameSite(one: string, other: string): boolean {
  if (!URL.canParse(one) || !URL.canParse(other)) return false;
  const [a, b] = [new URL(one).host, new URL(other).host];
  return a === b || a.endsWith(`.${b}`) || b.endsWith(`.${a}`);
}
