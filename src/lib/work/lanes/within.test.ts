import assert from 'node:assert/strict';
import { test } from 'node:test';
import { PlaceError } from '$lib/core/model/place.ts';
import { within } from './within.ts';

const never = new AbortController().signal;
const kindOf = (error: unknown) => (error instanceof PlaceError ? error.problem.kind : error);
const untilAborted = (signal: AbortSignal) =>
  new Promise<never>((_, reject) =>
    signal.addEventListener('abort', () => reject(new Error('aborted')))
  );

test('work that ends in time gives what it made, and its own errors', async () => {
  assert.equal(await within(1, never, async () => 7), 7);
  await assert.rejects(
    within(1, never, async () => {
      throw new PlaceError({ kind: 'refused' });
    }),
    (error) => kindOf(error) === 'refused'
  );
});

test('work that takes longer is given up, also where it listens to nothing', async () => {
  for (const work of [untilAborted, () => new Promise<never>(() => {})])
    await assert.rejects(
      within(0.0005, never, work),
      (error) =>
        kindOf(error) === 'timed-out' && /longer than/.test(String(Object(error).problem.detail))
    );
});

test('a run that is stopped stops the work, and says that it was stopped', async () => {
  const outer = new AbortController();
  let wasStopped = false;
  const going = within(1, outer.signal, async (signal) => {
    signal.addEventListener('abort', () => (wasStopped = true));
    return untilAborted(signal);
  });
  outer.abort();
  await assert.rejects(going, (error) => kindOf(error) === 'stopped');
  assert.ok(wasStopped);
  await assert.rejects(
    within(1, outer.signal, async () => new Promise<never>(() => {})),
    (error) => kindOf(error) === 'stopped'
  );
});
