import ipaddr from 'ipaddr.js';

/** How a user's own visits are told apart in a log. */
export interface OwnVisits {
  /** Addresses or ranges of them, as `203.0.113.7` or `2001:db8::/32`. */
  addresses: readonly string[];
  /** Words in the address of a page, or in the name of a browser, that only the user's own visits have. */
  marks: readonly string[];
}

type Range = ReturnType<typeof ipaddr.parseCIDR>;

/** An address or a range as a range; null where it is neither. */
export function readRange(text: string): Range | null {
  const word = text.trim();
  try {
    if (word.includes('/')) return ipaddr.parseCIDR(word);
    const address = ipaddr.process(word);
    return [address, address.kind() === 'ipv4' ? 32 : 128];
  } catch {
    return null;
  }
}

/** Addresses that are remembered: a log has many more. */
const MOST_KNOWN = 20_000;

/** Whether a request is the user's own. What is no address or range is passed over. */
export function ownVisitFinder(own: OwnVisits): {
  isOwnAddress(address: string): boolean;
  hasMark(target: string, agent: string): boolean;
} {
  const ranges = own.addresses.map(readRange).filter((range) => range !== null);
  const marks = own.marks.map((mark) => mark.trim()).filter(Boolean);
  const known = new Map<string, boolean>();
  return {
    isOwnAddress(address) {
      if (ranges.length === 0) return false;
      const found = known.get(address);
      if (found !== undefined) return found;
      if (known.size >= MOST_KNOWN) known.clear();
      const isOwn = isWithin(address, ranges);
      known.set(address, isOwn);
      return isOwn;
    },
    hasMark: (target, agent) => marks.some((mark) => target.includes(mark) || agent.includes(mark))
  };
}

function isWithin(text: string, ranges: readonly Range[]): boolean {
  if (!ipaddr.isValid(text)) return false;
  const address = ipaddr.process(text);
  return ranges.some(
    ([base, bits]) => base.kind() === address.kind() && address.match([base, bits] as never)
  );
}
