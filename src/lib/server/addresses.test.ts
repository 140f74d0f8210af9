import assert from 'node:assert/strict';
import { test } from 'node:test';
import { PlaceError } from '../core/model/place.ts';
import { checkedUrl, ForbiddenAddress, isPublicIp, publicOnly } from './addresses.ts';

const policy = { excepted: new Set(['http://127.0.0.1:4811']) };
const verdict = (address: string): string => {
  try {
    return checkedUrl(address, policy).origin;
  } catch (error) {
    assert.ok(error instanceof PlaceError);
    return error.problem.kind;
  }
};

test('addresses of private, loopback, link-local and other special networks are not public', () => {
  const special = [
    '127.0.0.1',
    '127.9.9.9',
    '10.0.0.1',
    '172.16.0.1',
    '192.168.1.1',
    '169.254.169.254',
    '0.0.0.0',
    '100.64.0.1',
    '192.0.2.1',
    '198.18.0.1',
    '224.0.0.1',
    '240.0.0.1',
    '255.255.255.255',
    '::1',
    '::',
    'fe80::1',
    'fc00::1',
    'fd12::1',
    'ff02::1',
    '::ffff:127.0.0.1',
    '::ffff:10.0.0.1',
    '64:ff9b::7f00:1',
    '2001:db8::1',
    '2002:7f00:1::',
    'nonsense'
  ];
  for (const ip of special) assert.equal(isPublicIp(ip), false, ip);
  for (const ip of ['93.184.216.34', '2606:2800:220:1::1']) assert.equal(isPublicIp(ip), true, ip);
});

test('the many spellings of this machine are refused', () => {
  for (const host of [
    '127.0.0.1',
    '2130706433',
    '0x7f.1',
    '0177.0.0.1',
    '127.1',
    '[::1]',
    '[::ffff:127.0.0.1]',
    '[::ffff:7f00:1]',
    'localhost',
    'intranet',
    'loom.example.'
  ]) {
    assert.equal(verdict(`http://${host}/`), 'forbidden-address', host);
  }
});

test('only http and https, without a user in the address', () => {
  for (const address of [
    'file:///etc/passwd',
    'ftp://loom.example/',
    'gopher://loom.example/',
    'data:text/html,x',
    'loom.example',
    'http://user:pw@loom.example/'
  ]) {
    assert.equal(verdict(address), 'bad-address', address);
  }
});

test('the excepted origin is just that origin', () => {
  assert.equal(verdict('http://127.0.0.1:4811/blog/'), 'http://127.0.0.1:4811');
  for (const address of [
    'http://127.0.0.1:4810/',
    'https://127.0.0.1:4811/',
    'http://localhost:4811/',
    'http://127.0.0.1:48110/'
  ]) {
    assert.equal(verdict(address), 'forbidden-address', address);
  }
});

test('a name is refused when any of its addresses is not public, and pinned to those that were checked', () => {
  const resolve = (addresses: string[], all: boolean) => {
    let outcome: unknown;
    const lookup = publicOnly((_name, _options, callback) =>
      callback(
        null,
        addresses.map((address) => ({ address, family: address.includes(':') ? 6 : 4 }))
      )
    );
    lookup('name.example', { all }, (error, found) => (outcome = error ?? found));
    return outcome;
  };
  assert.ok(resolve(['127.0.0.1'], true) instanceof ForbiddenAddress);
  assert.ok(resolve(['93.184.216.34', '10.0.0.1'], true) instanceof ForbiddenAddress);
  assert.ok(resolve(['93.184.216.34', '::ffff:7f00:1'], false) instanceof ForbiddenAddress);
  assert.ok(resolve([], true) instanceof ForbiddenAddress);
  assert.equal(resolve(['93.184.216.34'], false), '93.184.216.34');
  assert.deepEqual(resolve(['93.184.216.34'], true), [{ address: '93.184.216.34', family: 4 }]);
});
