import type { LookupAddress, LookupAllOptions } from 'node:dns';
import type { LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';
import { PlaceError } from '$lib/core/model/place.ts';

export class ForbiddenAddress extends Error {}

/** Whether an IP address belongs to the open internet: not private, loopback, link-local or reserved. */
export function isPublicIp(ip: string): boolean {
  if (!ipaddr.isValid(ip)) return false;
  // `process` unwraps IPv4 addresses that are written as IPv6 ones.
  const address = ipaddr.process(ip);
  if (address.range() !== 'unicast' || METADATA.has(address.toString())) return false;
  if (address instanceof ipaddr.IPv4) return true;
  const { parts } = address;
  // Of IPv6 only global unicast is given out (RFC 4291, 2.4).
  if (((parts[0] ?? 0) & 0xe000) !== 0x2000) return false;
  // An IPv4 address within one of IPv6 (ISATAP, RFC 5214) is judged as itself.
  const isIsatap = ((parts[4] ?? 0) & 0xfdff) === 0 && parts[5] === 0x5efe;
  return !isIsatap || isPublicIp(dotted(parts[6] ?? 0, parts[7] ?? 0));
}

const dotted = (high: number, low: number): string =>
  [high >> 8, high & 255, low >> 8, low & 255].join('.');

/** Where clouds tell machines of themselves, at addresses of the open internet. */
const METADATA: ReadonlySet<string> = new Set(['168.63.129.16']);

/** Ports of services that are no web servers and take what is sent to them for commands. */
const NO_WEB_PORTS: ReadonlySet<number> = new Set([
  1080, 1099, 1433, 1521, 1723, 2049, 2181, 2375, 2376, 2483, 2484, 3128, 3306, 3389, 4369, 5060,
  5061, 5432, 5433, 5672, 5900, 5901, 5984, 6000, 6379, 6380, 6443, 6665, 6666, 6667, 6668, 6669,
  6697, 7000, 7001, 8009, 8086, 8500, 9042, 9092, 9200, 9300, 10250, 11211, 15672, 25672, 27017,
  27018, 27019, 28015, 50000
]);

/** @param port as an address has it: empty for the usual one */
const isWebPort = (port: string): boolean => {
  const number = Number(port);
  return (
    port === '' || number === 80 || number === 443 || (number >= 1024 && !NO_WEB_PORTS.has(number))
  );
};

export interface Policy {
  /** Origins that may be reached wherever they are: the rehearsal hosts. */
  excepted: ReadonlySet<string>;
}

/**
 * An address that may be asked for, by what can be said before its name is resolved.
 * @throws PlaceError `bad-address` or `forbidden-address`
 */
export function checkedUrl(address: string, policy: Policy): URL {
  if (!URL.canParse(address)) throw new PlaceError({ kind: 'bad-address', url: address });
  const url = new URL(address);
  if (url.protocol !== 'http:' && url.protocol !== 'https:') {
    throw new PlaceError({ kind: 'bad-address', url: address });
  }
  if (url.username || url.password) throw new PlaceError({ kind: 'bad-address', url: address });
  if (policy.excepted.has(url.origin)) return url;
  if (!isWebPort(url.port)) throw new PlaceError({ kind: 'forbidden-address', url: address });
  const host = url.hostname.replace(/^\[|\]$/g, '');
  if (ipaddr.isValid(host) ? !isPublicIp(host) : !host.includes('.') || host.endsWith('.')) {
    throw new PlaceError({ kind: 'forbidden-address', url: address });
  }
  return url;
}

type Resolve = (
  hostname: string,
  options: LookupAllOptions,
  callback: (error: NodeJS.ErrnoException | null, addresses: LookupAddress[]) => void
) => void;

/**
 * Name resolution that refuses names of which any address is not public. The connection is made
 * to the very address that was checked, so that a name cannot change its mind in between.
 */
export const publicOnly =
  (resolve: Resolve): LookupFunction =>
  (hostname, options, callback) => {
    resolve(hostname, { ...options, all: true }, (error, addresses) => {
      if (error) return callback(error, '', 0);
      const [chosen] = addresses;
      const isRefused = !chosen || addresses.some(({ address }) => !isPublicIp(address));
      if (isRefused) return callback(new ForbiddenAddress(hostname), '', 0);
      if (options.all) return callback(null, addresses);
      callback(null, chosen.address, chosen.family);
    });
  };
