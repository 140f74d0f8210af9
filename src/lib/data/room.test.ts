import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import type { Narration } from '$lib/core/narration/narration.ts';
import { sceneSchema } from '$lib/core/narration/scenes.ts';
import { db } from './db.ts';
import { forgetUnusedFrames, mediaIds, saveMedia } from './media.ts';
import { forgetOldSpeech, keepSpeeches } from './speech.ts';

beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

const speech = { samples: new Int16Array(10), rate: 48_000, words: [] };
const keepScene = (scene: object) =>
  db.narrations.put({
    id: 'p',
    scenes: [sceneSchema.parse({ id: 's', kind: 'statement', lines: [], ...scene })]
  } as unknown as Narration);

test('old sentences are forgotten, but for what the user read for a video that is kept', async () => {
  for (const key of ['said', 'take:used', 'take:unused'])
    await keepSpeeches(new Map([[key, speech]]), '2026-01-01');
  await keepSpeeches(new Map([['take:new', speech]]), '2026-11-01');
  const take = { key: 'take:used', spoken: 'x' };
  await keepScene({ lines: [{ id: 'l', text: 'x', spoken: 'x', source: null, take }] });
  await forgetOldSpeech(new Date('2026-11-27T12:00:00Z'));
  assert.deepEqual(await db.speech.toCollection().primaryKeys(), ['take:new', 'take:used']);
  assert.deepEqual(await db.samples.toCollection().primaryKeys(), ['take:new', 'take:used']);
});

test('frames that were proposed and are not shown are forgotten, other pictures stay', async () => {
  for (const id of ['frame:a@3', 'frame:b@9', 'own:c'])
    await saveMedia({ id, name: id, blob: new Blob(['x']) });
  await keepScene({ picture: { url: 'frame:a@3', alt: '' } });
  await forgetUnusedFrames();
  assert.deepEqual(await mediaIds(), ['frame:a@3', 'own:c']);
});

test('beyond the room, the sentences that were not used for longest are forgotten', async () => {
  const second = { samples: new Int16Array(48_000), rate: 48_000, words: [] };
  for (const [key, day] of [
    ['first', '2026-11-01'],
    ['take:used', '2026-11-02'],
    ['second', '2026-11-03'],
    ['third', '2026-11-04']
  ] as const)
    await keepSpeeches(new Map([[key, second]]), day);
  const take = { key: 'take:used', spoken: 'x' };
  await keepScene({ lines: [{ id: 'l', text: 'x', spoken: 'x', source: null, take }] });
  await forgetOldSpeech(new Date('2026-11-27T12:00:00Z'), 200_000);
  assert.deepEqual(await db.speech.toCollection().primaryKeys(), ['second', 'take:used', 'third']);
});
