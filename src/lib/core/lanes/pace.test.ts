import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import {
  nearestAllowed,
  nextAllowed,
  paceSchema,
  planSlots,
  whyNotAt,
  type Pace,
  type PaceHistory
} from './pace.ts';

const at = (text: string) => Date.parse(text);
const iso = (slots: { at: number }[]) => slots.map((s) => new Date(s.at).toISOString());
const pace = (change: Partial<Pace>): Pace => paceSchema.parse({ zone: 'Etc/UTC', ...change });
const NONE: PaceHistory = { placed: [], since: 0, allowances: [] };

test('one a day goes out when the hours begin, from the next open moment on', () => {
  const slots = planSlots(pace({ hours: { from: 9, to: 17 } }), NONE, at('2026-11-25T22:00Z'), 3);
  assert.deepEqual(iso(slots), [
    '2026-11-26T09:00:00.000Z',
    '2026-11-27T09:00:00.000Z',
    '2026-11-28T09:00:00.000Z'
  ]);
  assert.deepEqual(
    slots.map((s) => s.waitsFor),
    ['hours', 'gap', 'gap']
  );
});

test('weekdays, weeks and gaps are kept', () => {
  const twice = pace({
    perDay: 2,
    perWeek: 3,
    gap: 120,
    weekdays: [2, 4],
    hours: { from: 8, to: 12 }
  });
  // Tuesdays and Thursdays.
  assert.deepEqual(iso(planSlots(twice, NONE, at('2026-11-23T00:00Z'), 5)), [
    '2026-11-24T08:00:00.000Z',
    '2026-11-24T10:00:00.000Z',
    '2026-11-26T08:00:00.000Z',
    '2026-12-01T08:00:00.000Z',
    '2026-12-01T10:00:00.000Z'
  ]);
});

test('a new channel starts slowly', () => {
  const since = at('2026-01-01T00:00Z');
  const slow = pace({ perDay: 3, rampDays: 2, gap: 0, hours: { from: 6, to: 24 } });
  const days = planSlots(slow, { ...NONE, since }, since, 12).map((s) =>
    new Date(s.at).toISOString().slice(8, 10)
  );
  assert.deepEqual(days, ['01', '02', '03', '03', '04', '04', '05', '05', '05', '06', '06', '06']);
});

test('what a place still takes is kept, also past the end of its month', () => {
  const asOf = at('2028-02-10T12:00Z');
  const allowance = { most: 2, per: 'month' as const, left: 1, asOf, used: [asOf - 5] };
  const slots = planSlots(
    pace({ perDay: null, gap: 0, hours: { from: 0, to: 24 } }),
    { ...NONE, allowances: [allowance] },
    asOf,
    4
  );
  assert.deepEqual(iso(slots), [
    '2028-02-10T12:00:00.000Z',
    // A leap year: the month has a 29th.
    '2028-03-01T00:00:00.000Z',
    '2028-03-01T00:00:00.000Z',
    '2028-04-01T00:00:00.000Z'
  ]);
  assert.equal(slots[1]?.waitsFor, 'allowance');
});

test('hours that are left out or come twice when clocks change are met once', () => {
  const night = (zone: string, from: number, to: number) =>
    pace({ zone, hours: { from, to }, gap: 0 });
  // Berlin, 29 March 2026: from 01:59 to 03:00. An hour of two to three is not there that day.
  assert.deepEqual(iso(planSlots(night('Europe/Berlin', 2, 3), NONE, at('2026-03-28T12:00Z'), 1)), [
    '2026-03-30T00:00:00.000Z'
  ]);
  assert.deepEqual(iso(planSlots(night('Europe/Berlin', 2, 4), NONE, at('2026-03-28T12:00Z'), 1)), [
    '2026-03-29T01:00:00.000Z'
  ]);
  // 25 October: two to three comes twice; one a day is one.
  assert.deepEqual(iso(planSlots(night('Europe/Berlin', 2, 3), NONE, at('2026-10-24T12:00Z'), 2)), [
    '2026-10-25T00:00:00.000Z',
    '2026-10-26T01:00:00.000Z'
  ]);
  // Lord Howe Island changes its clock by half an hour.
  const [first] = planSlots(night('Australia/Lord_Howe', 2, 3), NONE, at('2026-10-03T10:00Z'), 1);
  assert.equal(new Date(first!.at).toISOString(), '2026-10-03T15:30:00.000Z');
});

test('a pace that can never open says so', () => {
  const never = {
    placed: [],
    since: 0,
    allowances: [{ most: 0, per: 'day', left: 0, asOf: 0, used: [] }]
  };
  assert.equal(nextAllowed(pace({}), never as unknown as PaceHistory, 0), null);
  assert.throws(() => pace({ hours: { from: 9, to: 9 } }));
  assert.throws(() => pace({ zone: 'Mars/Olympus' }));
});

/** Local parts of a moment, by the platform's own calendar and not by what is tested. */
function partsIn(zone: string): (moment: number) => { day: string; hour: number; weekday: number } {
  const format = new Intl.DateTimeFormat('en-CA', {
    ...({ timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit' } as const),
    ...({ hour: '2-digit', hourCycle: 'h23', weekday: 'short' } as const)
  });
  const names = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
  return (moment) => {
    const part = Object.fromEntries(format.formatToParts(moment).map((p) => [p.type, p.value]));
    return {
      day: `${part.year}-${part.month}-${part.day}`,
      hour: Number(part.hour),
      weekday: 1 + names.indexOf((part.weekday ?? '').slice(0, 3))
    };
  };
}

const ZONES = [
  'Europe/Berlin',
  'America/New_York',
  'America/St_Johns',
  'Asia/Kathmandu',
  'Asia/Kolkata',
  'Australia/Lord_Howe',
  'Pacific/Chatham',
  'Africa/Cairo',
  'Asia/Beirut',
  'Etc/UTC'
];
/** Around clock changes, ends of months, and a leap day. */
const STARTS = [
  '2026-03-27',
  '2026-10-23',
  '2026-03-06',
  '2026-10-30',
  '2026-04-03',
  '2026-10-02',
  '2028-02-27',
  '2026-12-29',
  '2026-04-23',
  '2026-10-29'
].map((d) => at(`${d}T00:00Z`));

test('never more in a local day or week, never under the gap, never outside the hours', () => {
  const arbitrary = fc.record({
    zone: fc.constantFrom(...ZONES),
    start: fc.constantFrom(...STARTS),
    offset: fc.integer({ min: 0, max: 3 * 86_400_000 }),
    perDay: fc.option(fc.integer({ min: 1, max: 4 })),
    perWeek: fc.option(fc.integer({ min: 1, max: 9 })),
    gap: fc.constantFrom(0, 7, 30, 60, 600, 1500),
    weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }),
    from: fc.integer({ min: 0, max: 23 }),
    length: fc.integer({ min: 1, max: 24 }),
    reserve: fc.constantFrom(0, 20_000)
  });
  fc.assert(
    fc.property(arbitrary, ({ start, offset, from, length, reserve, ...rest }) => {
      const to = Math.min(24, from + length);
      const made = pace({ ...rest, hours: { from, to } });
      const now = start + offset;
      const slots = planSlots(made, NONE, now, 25, reserve);
      assert.ok(slots.length > 0);
      const parts = partsIn(made.zone);
      const perDay = new Map<string, number>();
      for (const [i, slot] of slots.entries()) {
        const before = slots[i - 1]?.at ?? -Infinity;
        assert.ok(slot.at >= now && slot.at - before >= made.gap * 60_000);
        for (const moment of [slot.at, slot.at + reserve]) {
          const { hour, weekday } = parts(moment);
          assert.ok(hour >= from && hour < to, `${hour} is not from ${from} to ${to}`);
          assert.ok(made.weekdays.includes(weekday));
        }
        const { day } = parts(slot.at);
        perDay.set(day, (perDay.get(day) ?? 0) + 1);
      }
      for (const [day, count] of perDay) {
        assert.ok(made.perDay === null || count <= made.perDay);
        // From Monday on: the days of the same week up to this one.
        const monday = Date.parse(day) - ((new Date(day).getUTCDay() + 6) % 7) * 86_400_000;
        const week = [...perDay].filter(
          ([d]) => Date.parse(d) >= monday && Date.parse(d) < monday + 7 * 86_400_000
        );
        const sum = week.reduce((total, [, n]) => total + n, 0);
        assert.ok(made.perWeek === null || sum <= made.perWeek);
      }
    }),
    { numRuns: 200 }
  );
});

test('each goes at the first moment that is allowed', () => {
  // Against every quarter of an hour tried one by one.
  fc.assert(
    fc.property(
      fc.constantFrom(...ZONES),
      fc.constantFrom(...STARTS),
      fc.integer({ min: 0, max: 23 }),
      fc.integer({ min: 1, max: 6 }),
      (zone, start, from, length) => {
        const to = Math.min(24, from + length);
        const [slot] = planSlots(pace({ zone, hours: { from, to } }), NONE, start, 1);
        const parts = partsIn(zone);
        let first = start;
        while (!(parts(first).hour >= from && parts(first).hour < to)) first += 15 * 60_000;
        assert.equal(slot?.at, first);
      }
    ),
    { numRuns: 150 }
  );
});

const anyPace = fc.record({
  zone: fc.constantFrom(...ZONES),
  perDay: fc.option(fc.integer({ min: 1, max: 3 })),
  perWeek: fc.option(fc.integer({ min: 1, max: 6 })),
  gap: fc.constantFrom(0, 30, 90, 24 * 60),
  from: fc.integer({ min: 0, max: 22 }),
  length: fc.integer({ min: 1, max: 24 }),
  weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 })
});
const paceFrom = ({ from, length, ...rest }: Partial<Pace> & { from: number; length: number }) =>
  pace({ ...rest, hours: { from, to: Math.min(24, from + length) } });

test('what went out later is kept clear of as well: the gap counts both ways', () => {
  const history = { ...NONE, placed: [at('2026-11-26T12:00Z')] };
  const open = pace({ perDay: null, gap: 60, hours: { from: 0, to: 24 } });
  assert.equal(whyNotAt(open, history, at('2026-11-26T11:30Z')), 'gap');
  assert.equal(whyNotAt(open, history, at('2026-11-26T11:00Z')), null);
  assert.deepEqual(iso(planSlots(open, history, at('2026-11-26T11:00Z'), 2)), [
    '2026-11-26T11:00:00.000Z',
    '2026-11-26T13:00:00.000Z'
  ]);
});

test('the nearest moment is one that the pace allows, before or after, and never in the past', () => {
  const wish = at('2026-11-26T05:00Z');
  const day = pace({ hours: { from: 9, to: 17 }, gap: 0 });
  assert.equal(nearestAllowed(day, NONE, wish, at('2026-11-20T00:00Z')), at('2026-11-26T09:00Z'));
  // At 18:00 the day before is nearer than the next morning is to 18:00 of this one.
  const evening = at('2026-11-26T18:00Z');
  assert.equal(
    nearestAllowed(day, NONE, evening, at('2026-11-20T00:00Z')),
    at('2026-11-26T16:45Z')
  );
  assert.equal(
    nearestAllowed(day, NONE, evening, at('2026-11-26T17:30Z')),
    at('2026-11-27T09:00Z')
  );
  fc.assert(
    fc.property(
      anyPace,
      fc.constantFrom(...STARTS),
      fc.array(fc.integer({ min: -10 * 86_400_000, max: 10 * 86_400_000 }), { maxLength: 12 }),
      fc.integer({ min: -2 * 86_400_000, max: 12 * 86_400_000 }),
      (given, now, others, wished) => {
        const asked = paceFrom(given);
        const history = { ...NONE, placed: others.map((o) => now + o) };
        const nearest = nearestAllowed(asked, history, now + wished, now);
        assert.ok(nearest !== null && nearest >= now);
        assert.equal(whyNotAt(asked, history, nearest), null);
        if (wished >= 0 && whyNotAt(asked, history, now + wished) === null)
          assert.equal(nearest, now + wished);
      }
    ),
    { numRuns: 300 }
  );
});
