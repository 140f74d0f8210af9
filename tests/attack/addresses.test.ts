import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { PlaceError } from '../../src/lib/core/model/place.ts';
import { checkedUrl, isPublicIp } from '../../src/lib/server/addresses.ts';

/** IPv4 addresses of this machine, its network, and of clouds that tell machines of themselves. */
const WITHIN = [
  '127.0.0.1',
  '127.255.255.254',
  '10.0.0.1',
  '10.255.0.3',
  '172.16.0.1',
  '172.31.255.1',
  '192.168.0.1',
  '169.254.169.254',
  '100.64.0.1',
  '100.100.100.200',
  '0.0.0.0',
  '192.0.0.192',
  '198.18.0.1',
  '224.0.0.1',
  '255.255.255.255',
  '168.63.129.16'
];

/** The ways in which an IPv4 address may be spelled in the place of a host. */
function spellings(ip: string): string[] {
  const bytes = ip.split('.').map(Number);
  const [a = 0, b = 0, c = 0, d = 0] = bytes;
  const number = ((a * 256 + b) * 256 + c) * 256 + d;
  const hex = (n: number, width = 1) => n.toString(16).padStart(width, '0');
  const [high, low] = [hex(a * 256 + b), hex(c * 256 + d)];
  return [
    ip,
    `${ip}.`,
    String(number),
    `0x${hex(number)}`,
    `0${number.toString(8)}`,
    bytes.map((n) => `0x${hex(n)}`).join('.'),
    bytes.map((n) => `0${n.toString(8)}`).join('.'),
    `${a}.${b}.${c * 256 + d}`,
    `${a}.${(b * 256 + c) * 256 + d}`,
    ip.replaceAll('.', '。'),
    ip.replaceAll('.', '%2e'),
    [...ip].map((x) => (x === '.' ? x : String.fromCodePoint(0xff10 + Number(x)))).join(''),
    `[::ffff:${ip}]`,
    `[::ffff:${high}:${low}]`,
    `[0:0:0:0:0:ffff:${high}:${low}]`,
    `[::${ip}]`,
    `[::${high}:${low}]`,
    `[64:ff9b::${high}:${low}]`,
    `[64:ff9b:1::${high}:${low}]`,
    `[2002:${high}:${low}::1]`,
    `[2001:db8::5efe:${high}:${low}]`,
    `[2a00:1450:4001:80e:0:5efe:${high}:${low}]`,
    `[2a00:1450:4001:80e:200:5efe:${high}:${low}]`,
    `[fe80::5efe:${high}:${low}]`
  ];
}

/** Hosts that are nobody's on the open internet. */
const NOWHERE = [
  '[::1]',
  '[::]',
  '[100::1]',
  '[100:0:0:1::1]',
  '[200::1]',
  '[4000::1]',
  '[5f00::1]',
  '[8000::1]',
  '[fc00::1]',
  '[fd00:ec2::254]',
  '[fe80::1]',
  '[fec0::1]',
  '[ff02::1]',
  '[2001::1]',
  '[2001:10::1]',
  '[2001:20::1]',
  '[2001:db8::1]',
  '[3fff::1]',
  'localhost',
  'LOCALHOST',
  'intranet',
  'metadata',
  'loom.example.'
];
const outcome = (address: string): string => {
  try {
    return checkedUrl(address, { excepted: new Set() }).href;
  } catch (error) {
    assert.ok(error instanceof PlaceError, String(error));
    return error.problem.kind;
  }
};
const isHeld = (address: string) => /^(?:forbidden|bad)-address$/.test(outcome(address));

test('no spelling of an inner address is let out', () => {
  const hosts = [...WITHIN.flatMap(spellings), ...NOWHERE];
  assert.ok(hosts.length > 300, String(hosts.length));
  const broken = hosts.filter(
    (host) => !isHeld(`http://${host}/`) || !isHeld(`https://${host}:8443/`)
  );
  assert.deepEqual(broken, []);
});

test('no port of mail, databases and the like, no other scheme, no name and password', () => {
  const ports = [
    1, 21, 22, 23, 25, 53, 110, 143, 465, 587, 993, 1023, 3306, 5432, 6379, 11211, 27017
  ];
  const broken = [
    ...ports.map((port) => `http://loom.example:${port}/`),
    ...['ftp', 'file', 'gopher', 'ws', 'data', 'javascript', 'blob', 'dict', 'ldap'].map(
      (scheme) => `${scheme}://loom.example/`
    ),
    'http://a@loom.example/',
    'http://a:b@loom.example/',
    'http://127.0.0.1#@loom.example/',
    'http://127.0.0.1\\@loom.example/',
    '//loom.example/',
    'http:/\n/127.0.0.1/',
    ''
  ].filter((address) => !isHeld(address));
  assert.deepEqual(broken, []);
  for (const port of ['', ':80', ':443', ':1024', ':3000', ':8080', ':8443'])
    assert.ok(!isHeld(`http://loom.example${port}/`), port);
});

test('of IPv6 only global unicast space that is nobody’s within is public', () => {
  fc.assert(
    fc.property(fc.ipV6(), (ip) => {
      if (isPublicIp(ip)) assert.match(new URL(`http://[${ip}]/`).hostname, /^\[[23]/);
    })
  );
  for (const ip of ['93.184.216.34', '8.8.8.8', '2606:2800:220:1::1', '2a00:1450:4001:80e::200e'])
    assert.ok(isPublicIp(ip), ip);
});
