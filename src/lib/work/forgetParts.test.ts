import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Render } from '$lib/core/narration/narration.ts';
import { saveRender } from '$lib/data/narrations.ts';
import { partName } from '$lib/video/partFile.ts';
import { forgetOldParts } from './forgetParts.ts';

const render: Omit<Render, 'id' | 'changed' | 'state'> = {
  problem: null,
  format: 'webm',
  file: '',
  bytes: 0,
  seconds: 0,
  width: 0,
  height: 0,
  audio: 'opus',
  captions: '',
  chapters: [],
  madeFrom: ''
};

/** Files in memory, each of a hundred bytes. */
function folderOf(names: Set<string>) {
  const held = {
    keys: async function* () {
      yield* [...names];
    },
    getFileHandle: (name: string) =>
      names.has(name)
        ? Promise.resolve({ getFile: () => Promise.resolve(new Blob(['x'.repeat(100)])) })
        : Promise.reject(new Error('none')),
    removeEntry: (name: string) => Promise.resolve(void names.delete(name))
  };
  const storage = {
    getDirectory: () => Promise.resolve({ getDirectoryHandle: () => Promise.resolve(held) })
  };
  Object.defineProperty(globalThis, 'navigator', { configurable: true, value: { storage } });
}

test('parts of the videos that were made last are kept, and those that are being made; films stay', async () => {
  const of = (post: string, content: string) => partName(post, content);
  const [old, older, late, cut, lost] = [
    await of('old', 'a'),
    await of('older', 'a'),
    await of('late', 'a'),
    await of('cut', 'a'),
    await of('lost', 'a')
  ];
  const names = new Set([old, older, late, cut, lost, 'older-video-1.webm']);
  folderOf(names);
  for (const [id, changed, state] of [
    ['old', '2026-02-01', 'done'],
    ['older', '2026-01-01', 'done'],
    ['late', '2026-03-01', 'done'],
    ['cut', '2026-01-05', 'running']
  ] as const)
    await saveRender({ ...render, id, changed, state });
  await forgetOldParts(600);
  assert.equal(names.size, 6);
  await forgetOldParts(300);
  assert.deepEqual([...names].sort(), [cut, late, 'older-video-1.webm', old].sort());
  await forgetOldParts(0);
  assert.deepEqual([...names].sort(), [cut, 'older-video-1.webm']);
});
