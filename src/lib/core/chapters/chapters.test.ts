import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { aTalk } from '../testing.ts';
import { parseWebVtt } from '../captions/webvtt.ts';
import { chaptersInDescription } from './chapter.ts';
import {
  chapterFaults,
  joinChapter,
  keepByHand,
  moveChapter,
  renameChapter,
  splitChapter
} from './edit.ts';
import {
  chapterLinks,
  chaptersJson,
  chaptersVtt,
  clipsJsonLd,
  descriptionList
} from './formats.ts';
import { proposeChapters } from './propose.ts';
import { segmentText } from './segment.ts';
import { signpostOdds } from '../lang/en/signposts.ts';

const LECTURE = [
  'Welcome to the studio. Today we wind a warp on a warping board. A warp is a set of threads of the same length. The warping board is a wooden frame with pegs.',
  'The board stands on the table. The pegs of the board must be firm. Each peg holds the yarn of the warp.',
  'Now let’s talk about the cross. The cross keeps the threads in order. Without a cross the threads tangle.',
  'The cross lies between two pegs. Over the first peg and under the second, that is the cross. Look at the cross from the side.',
  'Next, counting. Count the threads in bundles of twenty. A bundle is tied with cotton. Twelve bundles are two hundred and forty threads.',
  'Count every bundle twice. A lost bundle is a stripe that is too narrow. Write the number of bundles down.'
];

test('chapters begin where signposts and words say so, at 0 first, with titles of the speaker', () => {
  const talk = aTalk(LECTURE);
  const { chapters, curve } = proposeChapters(talk);
  const starts = chapters.map((c) => c.start);
  const cross = talk.sentences.find((s) => s.text.startsWith('Now let’s'))?.start;
  const counting = talk.sentences.find((s) => s.text.startsWith('Next'))?.start;
  assert.equal(starts[0], 0);
  assert.ok(
    starts.includes(cross ?? -1) && starts.includes(counting ?? -1),
    JSON.stringify(chapters)
  );
  assert.equal(curve.length, talk.sentences.length);
  const said = talk.plain.join(' ');
  for (const { title } of chapters) {
    assert.ok(title.split(' ').length >= 2 && title.split(' ').length <= 6, title);
    assert.ok(said.includes(title.toLowerCase()), title);
  }
  assert.equal(new Set(chapters.map((c) => c.title)).size, chapters.length);
});

test('the rules of chapter lists hold for any talk and any wished count', () => {
  const sentence = fc
    .array(fc.constantFrom('the', 'warp', 'now', 'tie', 'peg', 'cross', 'next', 'wool', 'we'), {
      minLength: 1,
      maxLength: 14
    })
    .map((words) => `${words.join(' ')}.`);
  fc.assert(
    fc.property(
      fc.array(sentence, { minLength: 1, maxLength: 40 }),
      fc.option(fc.integer({ min: 1, max: 12 })),
      (lines, count) => {
        const talk = aTalk(lines);
        const end = talk.words.at(-1)?.end ?? 0;
        const { chapters, curve } = proposeChapters(talk, 0, count ?? undefined);
        assert.equal(chapters[0]?.start, 0);
        for (const [i, c] of chapters.entries()) {
          const next = chapters[i + 1]?.start ?? end;
          if (chapters.length > 1) assert.ok(next - c.start >= 10, `${c.start} to ${next}`);
          assert.ok(c.title.trim());
        }
        if (count) assert.ok(chapters.length <= count);
        for (const { value } of curve) assert.ok(value >= 0 && value <= 1);
      }
    ),
    { numRuns: 40 }
  );
});

test('a talk with room for three chapters has three', () => {
  assert.ok(proposeChapters(aTalk(LECTURE)).chapters.length >= 3);
  assert.equal(proposeChapters(aTalk(LECTURE), 0, 2).chapters.length, 2);
  assert.deepEqual(proposeChapters(aTalk([])), { chapters: [], curve: [] });
});

test('signposts are heard in many forms, and not in plain telling', () => {
  for (const yes of [
    'the second thing is the angle',
    'okay so now the water',
    'next up is the shutter speed',
    'before we take it off we tie it'
  ])
    assert.ok(signpostOdds(yes, '') >= 1.5, yes);
  for (const no of ['the yarn goes over the peg', 'it takes an hour', 'nowadays we use cotton'])
    assert.ok(signpostOdds(no, '') < 1, no);
  assert.ok(
    signpostOdds('take the yarn', 'and that is all') > signpostOdds('take the yarn', 'it is red')
  );
});

test('a written text is cut where its subject changes', () => {
  const wool = [
    'Wool is dyed with madder.',
    'Madder gives the wool a warm red.',
    'The red of madder on wool is fast.',
    'A second bath of madder dyes wool coral.'
  ];
  const bread = [
    'Bread needs flour, water and salt.',
    'The dough of the bread rests overnight.',
    'Bake the bread in a hot oven.',
    'The oven makes the crust of the bread.'
  ];
  assert.deepEqual(segmentText([...wool, ...bread], 2), [0, 4]);
  assert.deepEqual(segmentText([]), []);
  assert.deepEqual(segmentText(['One.']), [0]);
  assert.equal(segmentText(wool, 9).length, 4);
});

const list = [
  { start: 0, title: 'Why' },
  { start: 60, title: 'Tie, <then> cut' },
  { start: 95.5, title: 'Done' }
];

test('chapter lists in every form say the same', () => {
  assert.equal(descriptionList(list), '0:00 Why\n1:00 Tie, <then> cut\n1:35 Done');
  assert.deepEqual(chaptersInDescription(descriptionList(list))[1], {
    start: 60,
    title: 'Tie, <then> cut'
  });
  assert.deepEqual(parseWebVtt(chaptersVtt(list, 120)).cues[1], {
    start: 60,
    end: 95.5,
    text: 'Tie, <then> cut'
  });
  assert.equal(JSON.parse(chaptersJson(list, 120)).chapters[2].endTime, 120);
  assert.equal(
    chapterLinks(list, 'https://c.example/w?t={seek_to_second_number}').split('\n')[2],
    'Done: https://c.example/w?t=95'
  );
  const clips = JSON.parse(
    clipsJsonLd({ title: 'Tie', url: 'https://c.example/w' }, list, 120, '')
  );
  assert.equal(clips.hasPart[1]['@type'], 'Clip');
  assert.equal(clips.hasPart[1].endOffset, 95);
});

test('chapters are moved, named, split and joined; what is the user’s stays on finding them anew', () => {
  assert.equal(moveChapter(list, 1, 300)[1]?.start, 94.5);
  assert.equal(moveChapter(list, 0, 9)[0]?.start, 0);
  assert.deepEqual(
    splitChapter(list, 30, 'New').map((c) => c.title),
    ['Why', 'New', 'Tie, <then> cut', 'Done']
  );
  assert.deepEqual(
    joinChapter(list, 1).map((c) => c.title),
    ['Why', 'Done']
  );
  const mine = renameChapter(list, 1, 'My own');
  const anew = keepByHand(
    [
      { start: 0, title: 'A' },
      { start: 58, title: 'B' },
      { start: 80, title: 'C' }
    ],
    mine
  );
  assert.deepEqual(
    anew.map((c) => c.title),
    ['A', 'My own', 'C']
  );
  assert.equal(keepByHand([], [{ start: 40, title: 'Only', byHand: true }])[0]?.start, 0);
});

test('what a list lacks is reported', () => {
  const kinds = (chapters: typeof list) => chapterFaults(chapters, 120).map((f) => f.kind);
  assert.deepEqual(kinds(list), []);
  assert.deepEqual(
    kinds([
      { start: 3, title: '' },
      { start: 8, title: 'x' }
    ]),
    ['not-from-start', 'too-few', 'too-short', 'untitled']
  );
  assert.deepEqual(kinds([...list, { start: 107, title: 'Done' }]), ['same-title']);
});
