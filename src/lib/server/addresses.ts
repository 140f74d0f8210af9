import type { LookupAddress, LookupAllOptions } from 'node:dns';
import type { LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';
import { PlaceError } from '$lib/core/model/place.ts';

export class ForbiddenAddress extends Error {}

/** Whether an IP address belongs to the open internet: not private, loopback, link-local or reserved. */
export function isPublicIp(ip: string): boolean {
  if (!ipaddr.isValid(ip)) return false;
  // `process` unwraps IPv4 addresses that are written as IPv6 ones.
  return ipaddr.process(ip).range() === 'unicast';
}

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
