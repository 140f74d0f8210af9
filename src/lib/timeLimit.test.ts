import assert from 'node:assert/strict';
import { createServer } from 'node:http';
import { test } from 'node:test';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { PlaceError } from './core/model/place.ts';
import { withTimeLimit } from './timeLimit.ts';

setFlagsFromString('--expose_gc');
const collectGarbage = runInNewContext('gc') as () => void;

const kindOf = (error: unknown) => (error instanceof PlaceError ? error.problem.kind : error);
const untilAborted = (signal: AbortSignal) =>
  new Promise<never>((_, reject) =>
    signal.addEventListener('abort', () => reject(new Error('aborted')))
  );

test('work that ends in time returns what it made, and its own errors', async () => {
  assert.equal(await withTimeLimit(60_000, undefined, async () => 7), 7);
  await assert.rejects(
    withTimeLimit(60_000, undefined, async () => {
      throw new PlaceError({ kind: 'refused' });
    }),
    (error) => kindOf(error) === 'refused'
  );
});

test('work that takes longer is given up, also where it ignores its signal', async () => {
  for (const work of [untilAborted, () => new Promise<never>(() => {})])
    await assert.rejects(
      withTimeLimit(30, undefined, work, 'Making it took too long.'),
      (error) =>
        kindOf(error) === 'timed-out' && /too long/.test(String(Object(error).problem.detail))
    );
});

test('whoever stops the outer work stops this one, and reads that it was stopped', async () => {
  const outer = new AbortController();
  let wasStopped = false;
  const going = withTimeLimit(60_000, outer.signal, async (signal) => {
    signal.addEventListener('abort', () => (wasStopped = true));
    return untilAborted(signal);
  });
  outer.abort();
  await assert.rejects(going, (error) => kindOf(error) === 'stopped');
  assert.ok(wasStopped);
  await assert.rejects(
    withTimeLimit(60_000, outer.signal, async () => new Promise<never>(() => {})),
    (error) => kindOf(error) === 'stopped'
  );
});

test('the limit outlives the collection of garbage while a call drips', async () => {
  const server = createServer((_, answer) => {
    const timer = setInterval(() => answer.write('x'), 10);
    answer.on('close', () => clearInterval(timer));
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const address = server.address();
  const url = `http://127.0.0.1:${typeof address === 'object' ? address?.port : ''}`;
  const collecting = setInterval(collectGarbage, 20);
  try {
    const calls = Array.from({ length: 16 }, () =>
      withTimeLimit(400, undefined, async (signal) => (await fetch(url, { signal })).text()).then(
        () => 'answered',
        kindOf
      )
    );
    assert.deepEqual(new Set(await Promise.all(calls)), new Set(['timed-out']));
  } finally {
    clearInterval(collecting);
    server.closeAllConnections();
    server.close();
  }
});
