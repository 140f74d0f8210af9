import assert from 'node:assert/strict';
import { spawn, type ChildProcess } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { request } from 'node:http';
import { after, before, test } from 'node:test';

/** The built application as somebody runs it beyond this machine, behind a proxy that is this test. */
const ORIGIN = 'https://twin.example';
const PASSWORD = 'twelve looms in a row';
let child: ChildProcess;
let address = '';

before(async () => {
  child = spawn(process.execPath, ['build/bin/serve.js'], {
    env: { ...process.env, HOST: '127.0.0.1', PORT: '0', ORIGIN, PASSWORD },
    stdio: ['ignore', 'pipe', 'inherit']
  });
  await new Promise<void>((ready, fail) => {
    child.stdout?.on('data', (data: Buffer) => {
      address = /listens at (\S+)/.exec(String(data))?.[1] ?? '';
      if (address) ready();
    });
    child.once('exit', (code) => fail(new Error(`It ended with ${code}. Was it built?`)));
  });
});
after(() => child.kill());

/** `fetch` lets nobody set the header `Host`; the proxy is trusted for it. */
interface Asked {
  method?: string;
  headers?: Record<string, string>;
  body?: string;
}
function ask(path: string, init: Asked = {}) {
  return new Promise<{ status: number; headers: Record<string, string>; text: string }>(
    (done, fail) => {
      const call = request(
        `${address}${path}`,
        { method: init.method ?? 'GET', headers: { host: 'twin.example', ...init.headers } },
        (answer) => {
          let text = '';
          answer.on('data', (data: Buffer) => (text += String(data)));
          answer.on('end', () => {
            const headers = Object.fromEntries(
              Object.entries(answer.headers).map(([name, value]) => [name, String(value)])
            );
            done({ status: answer.statusCode ?? 0, headers, text });
          });
        }
      );
      call.on('error', fail);
      call.end(init.body);
    }
  );
}
const FORM = { 'content-type': 'application/x-www-form-urlencoded', origin: ORIGIN };
const enter = (password: string, headers: Record<string, string> = {}) =>
  ask('/enter', {
    method: 'POST',
    body: new URLSearchParams({ password }).toString(),
    headers: { ...FORM, ...headers }
  });
const cookieOf = (answer: { headers: Record<string, string> }) =>
  answer.headers['set-cookie']?.split(';')[0] ?? '';
const OURS = {
  origin: ORIGIN,
  'sec-fetch-site': 'same-origin',
  'content-type': 'application/json'
};

test('who has not entered gets the form, and of the rest nothing', async () => {
  for (const path of ['/', '/places', '/preview']) {
    const { status, headers } = await ask(path);
    assert.deepEqual([status, headers.location], [303, '/enter'], path);
  }
  const data = await ask('/__data.json');
  assert.deepEqual(JSON.parse(data.text), { type: 'redirect', location: '/enter' });
  const call = await ask('/api/read?url=https://a.example/', { headers: OURS });
  assert.equal(call.status, 401);
  assert.match(call.text, /signed-out/);
  const form = await ask('/enter');
  assert.equal(form.status, 200);
  assert.match(form.text, /<label>Password/);
  assert.match(form.headers['content-security-policy'] ?? '', /default-src 'none'/);
});

test('the password opens, another one does not, and a cookie that was made up is none', async () => {
  const wrong = await enter('twelve looms in a ro');
  assert.equal(wrong.status, 403);
  assert.equal(cookieOf(wrong), '');
  const right = await enter(PASSWORD);
  assert.equal(right.status, 303);
  const set = right.headers['set-cookie'] ?? '';
  for (const flag of ['HttpOnly', 'Secure', 'SameSite=Strict']) assert.match(set, new RegExp(flag));
  const cookie = cookieOf(right);
  assert.equal((await ask('/', { headers: { cookie } })).status, 200);
  for (const forged of [cookie.slice(0, -4), cookie.replace('Fe26', 'Fe25'), 'swift-twin=yes'])
    assert.equal((await ask('/', { headers: { cookie: forged } })).status, 303, forged);
  const left = await ask('/leave', { method: 'POST', headers: { ...OURS, cookie } });
  assert.match(left.headers['set-cookie'] ?? '', /Max-Age=0/);
});

test('another site cannot sign anybody in, and nobody tries for long', async () => {
  assert.equal((await enter(PASSWORD, { origin: 'https://evil.example' })).status, 403);
  const tries = [];
  for (let i = 0; i < 12; i++) tries.push((await enter(`guess ${i}`)).status);
  assert.equal(tries.at(-1), 429);
  assert.equal((await enter(PASSWORD)).status, 429);
});

test('files say what all answers say', async () => {
  const folder = 'build/client/_app/immutable/entry';
  for (const path of [
    `/_app/immutable/entry/${readdirSync(folder)[0]}`,
    '/favicon.svg',
    '/enter'
  ]) {
    const { status, headers } = await ask(path);
    assert.equal(status, 200, path);
    assert.equal(headers['x-content-type-options'], 'nosniff', path);
    assert.equal(headers['cross-origin-resource-policy'], 'same-origin', path);
    assert.equal(headers['cross-origin-opener-policy'], 'same-origin', path);
    assert.match(headers['permissions-policy'] ?? '', /camera=\(\)/, path);
  }
});

test('another name than its own is refused', async () => {
  assert.equal((await ask('/enter', { headers: { host: 'evil.example' } })).status, 421);
});
