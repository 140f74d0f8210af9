import assert from 'node:assert/strict';
import test from 'node:test';
import fc from 'fast-check';
import { anItem } from '../testing.ts';
import { dropReason } from './filter.ts';
import { evenWeekdays, laneOfItems } from './laneOfItems.ts';
import { nextAllowed, planSlots } from './pace.ts';

const of = { id: 'lane', name: 'Posts of 2 videos', zone: 'Europe/Berlin', now: 0 };
const LATER = Date.parse('2026-04-01T00:00:00Z');
const target = { placeId: 'blog', status: 'draft' as const };
const some = ['a', 'b'].map((id) => anItem({ id, kind: 'video', visibility: 'unlisted' }));
const candidateOf = (id: string) => ({
  item: anItem({ id, kind: 'video' }),
  words: 0,
  owner: 'Wrenfold Loomworks',
  likeMade: null,
  isInPlaylist: false,
  twin: { other: null, isSetAside: false, isInHand: false }
});

test('the lane takes what was chosen, whoever may see it, and nothing else', () => {
  const lane = laneOfItems(some, of, target, { aWeek: null, hour: 9, firstDay: null });
  assert.deepEqual(lane.source.places, ['channel']);
  assert.equal(dropReason(candidateOf('a'), lane, LATER), null);
  assert.equal(dropReason(candidateOf('c'), lane, LATER)?.kind, 'not-listed');
  assert.equal(lane.approval.mode, 'after-review');
});

test('days of the week are as far apart as they can be', () => {
  assert.deepEqual(evenWeekdays(1), [1]);
  assert.deepEqual(evenWeekdays(2), [1, 5]);
  assert.deepEqual(evenWeekdays(3), [1, 3, 6]);
  assert.deepEqual(evenWeekdays(9), [1, 2, 3, 4, 5, 6, 7]);
});

test('so many a week go out, on its days and from its hour on', () => {
  const DAY = 86_400_000;
  const monday = Date.parse('2026-11-30T00:00:00+01:00');
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 21 }), fc.integer({ min: 0, max: 23 }), (aWeek, hour) => {
      const { pace } = laneOfItems(some, of, target, { aWeek, hour, firstDay: null });
      const placed: number[] = [];
      let now = monday;
      for (;;) {
        const { at } = nextAllowed(pace, { placed, since: 0, allowances: [] }, now)!;
        if (at === null || at >= monday + 7 * DAY) break;
        placed.push(at);
        now = at + 1;
      }
      assert.equal(placed.length, aWeek);
    })
  );
});

test('nothing goes out before the first day, and then as it is spread', () => {
  const spread = { aWeek: 2, hour: 9, firstDay: '2027-03-29' };
  const { pace } = laneOfItems(some, of, target, spread);
  const history = { placed: [], since: 0, allowances: [] };
  const slots = planSlots(pace, history, LATER, 3);
  assert.deepEqual(
    slots.map(({ at }) => new Date(at).toISOString()),
    // The day after the clocks were set forward is a Monday.
    ['2027-03-29T07:00:00.000Z', '2027-04-02T07:00:00.000Z', '2027-04-05T07:00:00.000Z']
  );
  assert.equal(slots[0]?.waitsFor, 'not-before');
  assert.equal(nextAllowed(pace, history, Date.parse('2027-04-01T00:00:00Z'))?.waitsFor, 'weekday');
});

test('of posts it makes narrated videos', () => {
  const posts = ['a', 'b'].map((id) => anItem({ id, kind: 'post' }));
  const lane = laneOfItems(posts, of, target, { aWeek: null, hour: 9, firstDay: null });
  assert.equal(lane.make.kind, 'video');
  assert.deepEqual(lane.source.places, ['blog']);
});
