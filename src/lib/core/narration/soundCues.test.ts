import assert from 'node:assert/strict';
import { test } from 'node:test';
import { soundCues } from './soundCues.ts';
import type { SceneKind } from './scenes.ts';

const timed = (kind: SceneKind, start: number, end: number, stages = [start]) => ({
  id: kind,
  kind,
  start,
  end,
  stages,
  lines: []
});

test('scenes come with their sounds, lists tick, and no two sounds crowd each other', () => {
  const scenes = [
    timed('title', 0, 3),
    timed('statement', 3, 8),
    timed('list', 8, 14, [8, 8.5, 11]),
    timed('map', 14, 16),
    timed('figure', 14.5, 20),
    timed('end', 20, 25)
  ];
  const cues = soundCues(scenes, { duration: 25, scenes });
  assert.deepEqual(cues, [
    { at: 0, sound: 'shimmer' },
    { at: 8, sound: 'tick' },
    { at: 11, sound: 'tick' },
    { at: 14, sound: 'chime' },
    { at: 20, sound: 'bell' }
  ]);
});
