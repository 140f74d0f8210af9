import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Cue } from './cue.ts';
import { tidyCaptions } from './tidy.ts';
import { DROP_NOISE, KEEP_ALL_SPEECH } from './tidyOptions.ts';

const tidy = (cues: Cue[], options = DROP_NOISE) => tidyCaptions({ cues, unreadable: [] }, options);
const said = (cues: Cue[], options = DROP_NOISE) =>
  tidy(cues, options)
    .words.map((w) => w.text)
    .join(' ');
const found = (cues: Cue[]) =>
  Object.fromEntries(tidy(cues).mended.map(({ kind, count }) => [kind, count]));
const cue = (start: number, end: number, text: string): Cue => ({ start, end, text });

test('rolling captions are said once, and what was shown before takes no time', () => {
  const cues = [
    cue(0, 2, 'today we wind'),
    cue(2, 4, 'today we wind\na warp on'),
    cue(4, 6, 'a warp on\nthe board and'),
    cue(6, 8, 'the board and\nwe tie it')
  ];
  const { words } = tidy(cues);
  assert.equal(
    words.map((w) => w.text).join(' '),
    'today we wind a warp on the board and we tie it'
  );
  assert.equal(found(cues).rolling, 3);
  assert.equal(words.find((w) => w.text === 'a')?.start, 2);
  assert.equal(words.at(-1)?.end, 8);
});

test('a lone repeat is really said', () => {
  assert.equal(
    said([cue(0, 1, 'over and'), cue(1, 2, 'over and'), cue(2, 3, 'under it goes')]),
    'over and over and under it goes'
  );
});

test('disorder, overlaps and cues without length are mended, and told', () => {
  const cues = [cue(5, 7, 'second'), cue(0, 6, 'first'), cue(7, 7, 'third'), cue(9, 10, 'fourth')];
  assert.equal(said(cues), 'first second third fourth');
  assert.deepEqual(found(cues), { unordered: 1, overlap: 1, 'zero-length': 1 });
});

test('sound notes, speakers, fillers and stutters go by choice', () => {
  const cues = [
    cue(0, 3, '[music] ISOLDE: Um, so the the warp'),
    cue(3, 6, '>> is uh wound, is wound. (laughs) It had had enough.')
  ];
  assert.equal(said(cues), 'so the warp is wound. It had had enough.');
  assert.equal(
    said(cues, { soundNotes: false, speakers: false, fillers: false, stutters: false }),
    '[music] ISOLDE: Um, so the the warp >> is uh wound, is wound. (laughs) It had had enough.'.replace(
      '>> ',
      ''
    )
  );
  assert.deepEqual(found(cues), { 'sound-note': 2, speaker: 2, filler: 2, stutter: 3 });
  assert.deepEqual([...tidy(cues).turns], [2]);
});

test('a remark in brackets is no sound note', () => {
  assert.equal(said([cue(0, 2, 'the reed (or comb) is steel')]), 'the reed (or comb) is steel');
});

test('stamps inside a cue time its words', () => {
  const { words } = tidy([
    { start: 10, end: 14, text: 'over under', stamps: [{ at: 13, offset: 5 }] }
  ]);
  assert.deepEqual(
    words.map((w) => [w.text, w.start, w.end]),
    [
      ['over', 10, 13],
      ['under', 13, 14]
    ]
  );
});

test('whatever the captions, words come in order and none is made up', () => {
  const time = fc.integer({ min: 0, max: 60 });
  const text = fc
    .array(fc.constantFrom('um', 'warp', 'the', 'the', '[music]', '>>', 'A:', '-', 'wind.', '\n'), {
      maxLength: 8
    })
    .map((words) => words.join(' '));
  const cues = fc.array(fc.record({ start: time, end: time, text }, { noNullPrototype: true }), {
    maxLength: 12
  });
  fc.assert(
    fc.property(cues, fc.constantFrom(DROP_NOISE, KEEP_ALL_SPEECH), (given, options) => {
      const { words } = tidy(given, options);
      const all = given.flatMap((c) => c.text.split(/\s+/)).join(' ');
      for (const [i, word] of words.entries()) {
        assert.ok(word.end >= word.start && word.start >= (words[i - 1]?.start ?? 0));
        for (const part of word.text.split(/[\s-]+/)) assert.ok(all.includes(part));
      }
    })
  );
});
