import assert from 'node:assert/strict';
import { createServer, type RequestListener } from 'node:http';
import { after, before, test } from 'node:test';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { PlaceError } from '../core/model/place.ts';
import { askOutside } from './outside.ts';

setFlagsFromString('--expose_gc');
const collectGarbage = runInNewContext('gc') as () => void;

let origin = '';
let last: Record<string, unknown> = {};
let closed = 0;
const routes: Record<string, RequestListener> = {
  '/ok': (_, res) => res.setHeader('content-type', 'text/html').end('hello'),
  '/to-ok': (_, res) => res.writeHead(302, { location: '/ok' }).end(),
  '/to-self': (_, res) => res.writeHead(302, { location: '/to-self' }).end(),
  '/to-other-port': (_, res) => res.writeHead(302, { location: 'http://127.0.0.1:1/secret' }).end(),
  '/to-metadata': (_, res) =>
    res.writeHead(301, { location: 'http://169.254.169.254/latest' }).end(),
  '/to-file': (_, res) => res.writeHead(302, { location: 'file:///etc/passwd' }).end(),
  '/large-told': (_, res) => res.writeHead(200, { 'content-length': '99999999' }).write('x'),
  '/large-untold': (_, res) => {
    const timer = setInterval(() => res.write('x'.repeat(5000)), 1);
    res.on('close', () => {
      clearInterval(timer);
      closed++;
    });
  },
  '/slow': () => {},
  '/drips': (_, res) => {
    const timer = setInterval(() => res.write('x'), 50);
    res.on('close', () => clearInterval(timer));
  }
};
const server = createServer((req, res) => {
  last = req.headers;
  (routes[req.url ?? ''] ?? ((_req, r) => r.writeHead(404).end()))(req, res);
});
before(async () => {
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const address = server.address();
  origin = `http://127.0.0.1:${typeof address === 'object' ? address?.port : ''}`;
});
after(() => {
  server.closeAllConnections();
  server.close();
});

const limits = { size: 20_000, time: 1500, redirects: 3 };
const ask = (path: string, more: object = {}, signal = new AbortController().signal) =>
  askOutside(
    { url: origin + path, method: 'GET', ...more },
    { excepted: new Set([origin]) },
    signal,
    limits
  );
const kind = async (work: Promise<unknown>): Promise<string> => {
  try {
    await work;
    return 'answered';
  } catch (error) {
    assert.ok(error instanceof PlaceError, String(error));
    return error.problem.kind;
  }
};

test('reads, and follows a redirect to where it leads', async () => {
  const outside = await ask('/to-ok');
  assert.equal(new TextDecoder().decode(outside.bytes), 'hello');
  assert.equal(outside.url, `${origin}/ok`);
});

test('each redirect is checked anew', async () => {
  assert.equal(await kind(ask('/to-other-port')), 'forbidden-address');
  assert.equal(await kind(ask('/to-metadata')), 'forbidden-address');
  assert.equal(await kind(ask('/to-file')), 'bad-address');
  assert.equal(await kind(ask('/to-self')), 'too-many-redirects');
});

test('a call that carries a key is not led elsewhere', async () => {
  const outside = await ask('/to-ok', { headers: { authorization: 'Bearer k' } });
  assert.equal(outside.status, 302);
  const posted = await ask('/to-ok', { method: 'POST', body: '{}' });
  assert.equal(posted.status, 302);
});

test('size is limited, told beforehand or not, and the connection is given up', async () => {
  assert.equal(await kind(ask('/large-told')), 'too-large');
  assert.equal(await kind(ask('/large-untold')), 'too-large');
  for (let i = 0; i < 100 && closed === 0; i++) await new Promise((done) => setTimeout(done, 20));
  assert.equal(closed, 1);
});

test('time is limited, also for answers that drip', async () => {
  assert.equal(await kind(ask('/slow')), 'timed-out');
  assert.equal(await kind(ask('/drips')), 'timed-out');
});

test('the limit holds for calls that drip while garbage is collected', async () => {
  const collecting = setInterval(collectGarbage, 20);
  const kinds = await Promise.all(Array.from({ length: 16 }, () => kind(ask('/drips'))));
  clearInterval(collecting);
  assert.deepEqual(new Set(kinds), new Set(['timed-out']));
});

test('the user can stop it', async () => {
  const controller = new AbortController();
  setTimeout(() => controller.abort(), 50);
  assert.equal(await kind(ask('/slow', {}, controller.signal)), 'stopped');
});

test('nothing is sent but what belongs to the call', async () => {
  await ask('/ok', { headers: { accept: 'text/html' } });
  assert.deepEqual(Object.keys(last).sort(), ['accept', 'connection', 'host', 'user-agent']);
});
