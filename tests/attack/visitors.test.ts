import assert from 'node:assert/strict';
import { test } from 'node:test';
import { refuseForeign } from '../../src/lib/server/answers.ts';
import { isOurName, isPassword, setupProblem, Visitors } from '../../src/lib/server/visitors.ts';

const here = { origin: 'http://127.0.0.1:4810', host: '127.0.0.1', password: '' };
const there = { origin: 'https://twin.example', host: '0.0.0.0', password: 'a long enough one' };

test('beyond this machine a server is started with a name and a password only', () => {
  assert.equal(setupProblem(here), '');
  assert.equal(setupProblem({ ...here, origin: '' }), '');
  assert.equal(setupProblem(there), '');
  for (const setup of [
    { ...there, password: '' },
    { ...there, password: 'short' },
    { ...there, origin: '' },
    { ...there, host: '127.0.0.1', password: '' },
    { ...here, host: '0.0.0.0' },
    { ...here, host: '::' },
    { ...there, origin: 'https://twin.example/path' }
  ])
    assert.notEqual(setupProblem(setup), '', JSON.stringify(setup));
});

test('a call by another name is refused (DNS rebinding)', () => {
  for (const host of ['127.0.0.1:4810', 'localhost:4810', '[::1]:4810', '127.0.0.1'])
    assert.ok(isOurName(host, here), host);
  for (const host of [
    null,
    '',
    'evil.example',
    'evil.example:4810',
    '127.0.0.1.evil.example',
    'x y'
  ])
    assert.ok(!isOurName(host, here), String(host));
  assert.ok(isOurName('twin.example', there));
  assert.ok(isOurName('TWIN.example', there));
  for (const host of ['evil.example', 'twin.example.evil.example', 'twin.example:81', '127.0.0.1'])
    assert.ok(!isOurName(host, there), host);
});

test('only the password is the password, and none is none', () => {
  assert.ok(isPassword(there.password, there));
  for (const given of ['', `${there.password} `, there.password.slice(1), 'A'.repeat(100_000)])
    assert.ok(!isPassword(given, there), given.slice(0, 40));
  assert.ok(!isPassword('', here));
});

test('calls that do not come from our own pages are refused', () => {
  const verdict = (headers: Record<string, string>) =>
    refuseForeign(new Request('http://127.0.0.1:4810/api/read', { headers }), here.origin)?.status;
  assert.equal(verdict({ 'sec-fetch-site': 'same-origin' }), undefined);
  assert.equal(verdict({ origin: here.origin }), undefined);
  for (const headers of [
    {},
    { 'sec-fetch-site': 'none' },
    { 'sec-fetch-site': 'same-site' },
    { 'sec-fetch-site': 'cross-site' },
    { origin: 'null' },
    { origin: 'http://127.0.0.1:4811' },
    { origin: 'http://localhost:4810' },
    { origin: 'https://evil.example', 'sec-fetch-site': 'same-origin' },
    { origin: here.origin, 'sec-fetch-site': 'cross-site' }
  ] as Record<string, string>[])
    assert.equal(verdict(headers), 403, JSON.stringify(headers));
});

test('a visitor has only so many calls at once and in a minute; others are not held up', () => {
  let now = 0;
  const visitors = new Visitors(undefined, () => now);
  const leave = Array.from({ length: 32 }, () => visitors.enter('a'));
  assert.ok(leave.every(Boolean));
  assert.equal(visitors.enter('a'), null);
  assert.ok(visitors.enter('b'));
  for (const go of leave) go?.();
  let calls = 32;
  for (let go = visitors.enter('a'); go; go = visitors.enter('a'), calls++) go();
  assert.equal(calls, 1_200);
  now += 60_000;
  assert.ok(visitors.enter('a'));
});
