/** Query parameters that tell where a reader came from or begins, not what is read. */
const INCIDENTAL = /^(utm_\w+|fbclid|gclid|mc_[ce]id|ref|feature|si|t|start|time_continue)$/;

/**
 * One spelling for the many addresses of the same page: without scheme, `www.`, fragment,
 * trailing slash and incidental parameters. Empty for what is not an http address.
 */
export function canonicalAddress(address: string): string {
  if (!URL.canParse(address)) return '';
  const url = new URL(address);
  if (url.protocol !== 'http:' && url.protocol !== 'https:') return '';
  for (const name of [...url.searchParams.keys()]) {
    if (INCIDENTAL.test(name)) url.searchParams.delete(name);
  }
  url.searchParams.sort();
  const path = url.pathname.replace(/\/+$/, '');
  return `${url.host.replace(/^www\./, '')}${path}${url.search}`;
}

/** An absolute http(s) address, resolved against a base; empty where there is none. */
export function absoluteAddress(address: string | undefined, base: string): string {
  if (!address) return '';
  try {
    const url = new URL(address.trim(), base);
    return url.protocol === 'http:' || url.protocol === 'https:' ? url.href : '';
  } catch {
    return '';
  }
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
