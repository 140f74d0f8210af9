import assert from 'node:assert/strict';
import { test } from 'node:test';
import { sceneSchema, type SceneKind } from '../scenes.ts';
import type { TimeLine } from '../timeLine.ts';
import { pictureGaps, restOfGap } from './gaps.ts';
import { wordsOfPath } from './library.ts';
import { momentAbout } from './inTalk.ts';
import { proposePictures } from './propose.ts';

const video = (...scenes: [SceneKind, number, boolean?][]) => {
  let at = 0;
  const timed = scenes.map(([, seconds]) => ({ start: at, end: (at += seconds) }));
  return {
    scenes: scenes.map(([kind, , hasPicture], i) =>
      sceneSchema.parse({
        id: `${i}`,
        kind,
        lines: [{ id: `${i}`, text: 'x', spoken: 'x', source: null }],
        picture: hasPicture ? { url: 'p', alt: '' } : null
      })
    ),
    timeLine: { scenes: timed } as unknown as TimeLine
  };
};
const gapsOf = (...scenes: [SceneKind, number, boolean?][]) => {
  const { scenes: made, timeLine } = video(...scenes);
  return pictureGaps(made, timeLine).map(({ from, to, scenes: which }) => [from, to, which]);
};

test('a gap is a stretch of words alone that is too long', () => {
  assert.deepEqual(gapsOf(['title', 3], ['statement', 9], ['statement', 9]), []);
  assert.deepEqual(gapsOf(['title', 3], ['statement', 12], ['map', 2], ['list', 9], ['end', 4]), [
    [3, 26, [1, 3]]
  ]);
});

test('pictures and what is drawn end a gap, and a long one is two', () => {
  assert.deepEqual(gapsOf(['statement', 15], ['beside', 4, true], ['statement', 15]), []);
  assert.deepEqual(gapsOf(['statement', 15], ['chart', 4], ['statement', 15]), []);
  assert.equal(gapsOf(['statement', 15], ['figure', 4], ['statement', 15]).length, 1);
  assert.equal(
    gapsOf(...Array.from({ length: 8 }, (): [SceneKind, number] => ['statement', 11])).length,
    2
  );
});

test('a picture near the beginning of a gap leaves the rest of it', () => {
  const { scenes, timeLine } = video(
    ['statement', 10],
    ['statement', 10],
    ['statement', 10],
    ['statement', 8]
  );
  const [gap] = pictureGaps(scenes, timeLine);
  assert.ok(gap);
  assert.deepEqual(restOfGap(gap, 0, timeLine), [{ from: 10, to: 38, scenes: [1, 2, 3] }]);
  assert.deepEqual(restOfGap(gap, 2, timeLine), []);
});

test('of the pictures those come first that share the rarer words', () => {
  const candidates = [
    'loom-front.jpg the loom from the front',
    'heddles.png repaired heddles of the loom',
    'sheep on the hill'
  ];
  const found = proposePictures('A broken heddle stops the loom.', '', candidates, 'en');
  assert.deepEqual(
    found.map((p) => p.index),
    [1, 0]
  );
  assert.deepEqual(found[0]!.shared.toSorted(), ['heddle', 'loom']);
  assert.deepEqual(proposePictures('Tea is served at four.', '', candidates, 'en'), []);
});

test('what is said around a sentence decides between equals', () => {
  const candidates = ['warp on the table', 'warp on the warping board'];
  const [best] = proposePictures('Count the warp.', 'It is still on the board.', candidates, 'en');
  assert.equal(best?.index, 1);
});

test('the moment of a talk is where most of the words are said', () => {
  const cue = (start: number, text: string) => ({ start, end: start + 4, text });
  const cues = [
    cue(0, 'Hello, today we tie up a loom'),
    cue(60, 'now here is the broken heddle'),
    cue(64, 'and I cut it off with the hook'),
    cue(90, 'so much for today')
  ];
  const found = momentAbout('Cut the broken heddle off with a hook.', cues, 'en');
  assert.equal(found?.at, 61.5);
  assert.equal(momentAbout('Tea is served.', cues, 'en'), null);
});

test('names of files and folders are words, numbers of cameras are not', () => {
  for (const [path, words] of [
    ['studio/broken-heddle_2.jpg', 'studio broken heddle 2'],
    ['2026/IMG_2041.jpeg', ''],
    ['Flax/DSC00012.JPG', 'Flax'],
    ['WarpBeam.png', 'Warp Beam'],
    ['Kette – fertig.webp', 'Kette – fertig']
  ] as const)
    assert.equal(wordsOfPath(path), words);
});
