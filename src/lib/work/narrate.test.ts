import '../../../tests/browserOf.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { anItem } from '../core/testing.ts';
import type { Narration } from '../core/narration/narration.ts';
import { readRender, saveRender } from '../data/narrations.ts';
import { renderVideo, resumeRenders } from './narrate.ts';
import { tasks } from './tasks.svelte.ts';

/** As much of a narration as is looked at before anything is rendered. */
const narration = { id: 'post', format: 'webm', voice: null, scenes: [], options: {} };
const post = anItem({ id: 'post', kind: 'post' });
const begin = (signal?: AbortSignal) =>
  renderVideo(narration as unknown as Narration, post, signal);
const turn = () => new Promise((go) => setImmediate(go));
const labels = () => tasks.running.map((t) => t.label).filter((l) => l.startsWith('Rendering'));

test('as soon as the deck shows a render as stopped, it can be begun again', async () => {
  const stopped = begin(AbortSignal.abort());
  while (labels().length === 0) await turn();
  while (labels().length > 0) await turn();
  // No step in between: what the user sees is what counts.
  const again = begin(AbortSignal.abort());
  assert.equal((await stopped)?.state, 'stopped');
  assert.equal((await again)?.state, 'stopped');
  assert.equal((await readRender('post'))?.state, 'stopped');
});

test('what is stopped before it is rendered is not rendered', async () => {
  const render = await begin(AbortSignal.abort());
  // No worker of videos runs on Node: a render that was begun would have failed.
  assert.deepEqual([render?.state, render?.problem], ['stopped', null]);
});

test('a render that is being made is not resumed beside itself', async () => {
  await begin(AbortSignal.abort());
  const stopped = await readRender('post');
  assert.ok(stopped);
  const running = { ...stopped, state: 'running' as const };
  await saveRender(running);
  await navigator.locks.request('render/post', () => resumeRenders());
  assert.deepEqual(await readRender('post'), running);
});
