import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { z } from 'zod';
import { newLane, type Lane } from '../core/lanes/lane.ts';
import { paceReasonSchema } from '../core/lanes/pace.ts';
import { dropReasonSchema, type DropReason } from '../core/lanes/filter.ts';
import {
  dropMessage,
  approvalMessage,
  makeMessage,
  missedMessage,
  paceMessage,
  rateMessage,
  filterMessage,
  sourceMessage,
  targetsMessage
} from './laneMessages.ts';

const names = new Map([
  ['c', 'Loomworks'],
  ['d', 'Dye shed'],
  ['b', 'Notebook']
]);
const lane = newLane('l', 'Lane', 'Europe/Berlin', 0);
const NOW = new Date(2026, 4, 20, 12).getTime();
const HOUR = 3_600_000;

/** One of each reason there is, with the first of some values that each of its fields takes. */
const reasons: DropReason[] = dropReasonSchema.options.map((option) => {
  const { kind, ...fields } = option.shape;
  const sample = Object.entries(fields).map(([name, field]) => [
    name,
    ['Thing', 7, 'no-poll'].find((value) => (field as z.ZodType).safeParse(value).success)
  ]);
  return dropReasonSchema.parse({ kind: kind.value, ...Object.fromEntries(sample) });
});

test('each reason is reported in a sentence of its own', () => {
  const told = reasons.map(dropMessage);
  assert.equal(told.length, dropReasonSchema.options.length);
  for (const words of told) assert.match(words, /^[A-Z“].*\.$/);
  assert.equal(new Set(told).size, told.length);
  assert.doesNotMatch(told.join(' '), /undefined|NaN|null|\[object/);
});

test('what a reason knows stands in its words', () => {
  const cases: [DropReason, RegExp][] = [
    [{ kind: 'too-old', days: 1 }, /\b1 day old/],
    [{ kind: 'too-short', seconds: 44.4 }, /44 seconds/],
    [{ kind: 'has-word', word: 'giveaway' }, /“giveaway”/],
    [{ kind: 'no-permission', author: 'Juna' }, /by Juna/],
    [{ kind: 'other-creator', creator: '' }, /somebody without a name/],
    [{ kind: 'nothing-to-make', why: 'language' }, /English text only/],
    [{ kind: 'enough-in-all', most: 7 }, /7 in all/]
  ];
  for (const [reason, words] of cases) assert.match(dropMessage(reason), words);
});

test('a station says in plain words what it is set to', () => {
  const set: Lane = {
    ...lane,
    source: {
      ...lane.source,
      places: ['c', 'd', 'gone'],
      creators: ['Isolde'],
      playlists: ['x'],
      search: {
        any: ['reed', 'warp'],
        all: [],
        phrase: 'slow cloth',
        without: ['sale'],
        hashtag: 'loom'
      }
    },
    filter: {
      ...lane.filter,
      scope: 'most-seen-first',
      mostInAll: 9,
      longest: 600,
      others: 'licensed'
    },
    pace: {
      ...lane.pace,
      perDay: 2,
      perWeek: 5,
      gap: 90,
      weekdays: [6, 1],
      hours: { from: 0, to: 24 }
    },
    approval: { mode: 'if-no-check-complains', upToDate: 'ask' },
    targets: [{ placeId: 'b', status: 'private', categories: [], tags: [] }]
  };
  assert.equal(
    sourceMessage(set, names),
    'Loomworks, Dye shed and a place that is not linked, in 1 playlist, by Isolde, with any of reed and warp, with “slow cloth”, without sale, tagged loom'
  );
  assert.equal(
    filterMessage(set),
    'Most seen first, at most 9 in all, at most 10 min, others’ with a right'
  );
  assert.equal(paceMessage(set), '2 a day, 5 a week, 90 min apart, Mon, Sat, at any hour');
  assert.equal(approvalMessage(set), 'Straight out if no check complains');
  assert.equal(targetsMessage(set, names), 'Notebook, private');
  assert.equal(sourceMessage(lane, names), 'No source yet');
  assert.equal(targetsMessage(lane, names), 'No place yet');
});

test('what is made is told with its layout, as long as it is kept', () => {
  const layouts = new Map([['g', 'German videos']]);
  const of = (make: Partial<Lane['make']>) =>
    makeMessage({ ...lane, make: { ...lane.make, ...make } }, layouts);
  assert.equal(of({}), 'A post, laid out as the last one');
  assert.equal(of({ layout: 'g' }), 'A post, laid out as “German videos”');
  assert.equal(of({ layout: 'gone' }), 'A post, laid out as the last one');
  assert.equal(
    of({ layoutRules: [{ by: 'tag', is: 'dye', layout: 'g' }] }),
    'A post, laid out as the last one, with 1 rule for others'
  );
  assert.equal(of({ kind: 'update', form: 'poll' }), 'A poll');
  assert.equal(of({ kind: 'update', manner: 'plain' }), 'A short text, plain');
});

test('how much a source gives is told by days or by weeks', () => {
  const rate = (everyDays: number | null) => rateMessage({ count: 0, weeks: [], everyDays }, 3);
  assert.match(rate(9.2), /^3 items match now; the source had about one in 9 days/);
  assert.match(rate(1), /about 7 a week/);
  assert.match(rate(null), /had none in the past twelve weeks/);
});

test('what fell due is reported with when each goes out', () => {
  const slot = (hours: number, waitsFor: 'gap' | 'day-full' | null = null) => ({
    at: NOW + hours * HOUR,
    waitsFor
  });
  assert.equal(missedMessage([], NOW), '');
  assert.match(
    missedMessage([slot(0)], NOW),
    /^When this was opened on 20 May 2026, 12:00, 1 item was due, to go out at once\.$/
  );
  assert.match(
    missedMessage([slot(0), slot(24, 'day-full')], NOW),
    /2 items were due: one to go out at once, the other 21 May 2026, 12:00, because the day is full\.$/
  );
  assert.match(
    missedMessage([slot(2), slot(24, 'gap'), slot(48)], NOW),
    /one to go out 20 May 2026, 14:00, the next 21 May 2026.*, the last of them 22 May 2026, 12:00\.$/
  );
});

test('the words for what fell due name every moment in order and never fail', () => {
  const slots = fc.array(
    fc.record({
      at: fc.integer({ min: NOW, max: NOW + 1000 * HOUR }),
      waitsFor: fc.option(fc.constantFrom(...paceReasonSchema.options))
    }),
    { maxLength: 9 }
  );
  fc.assert(
    fc.property(slots, (given) => {
      const words = missedMessage(given, NOW);
      assert.equal(words === '', given.length === 0);
      assert.doesNotMatch(words, /undefined|NaN|null/);
    })
  );
});
