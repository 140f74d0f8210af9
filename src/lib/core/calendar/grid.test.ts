import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import {
  atHour,
  atSameTime,
  dateOf,
  dayAfter,
  hourOf,
  isSamePeriod,
  monthDays,
  shiftDays,
  weekDays
} from './grid.ts';

const BERLIN = 'Europe/Berlin';

test('a month is whole weeks from Monday on: four, five or six of them', () => {
  const weeks = (date: string) => monthDays(date, BERLIN).length / 7;
  assert.deepEqual(['2027-02-10', '2026-11-26', '2026-08-01'].map(weeks), [4, 6, 6]);
  assert.equal(weeks('2026-09-30'), 5);
  const days = monthDays('2026-11-26', BERLIN);
  assert.deepEqual([days[0]?.date, days.at(-1)?.date], ['2026-10-26', '2026-12-06']);
  assert.equal(days.filter((day) => day.isInMonth).length, 30);
});

test('days follow each other without a gap, also where clocks are changed', () => {
  const zones = [BERLIN, 'America/St_Johns', 'Australia/Lord_Howe', 'Asia/Beirut', 'Africa/Cairo'];
  fc.assert(
    fc.property(
      fc.constantFrom(...zones),
      fc.date({ min: new Date('2020-01-01'), max: new Date('2035-01-01'), noInvalidDate: true }),
      (zone, day) => {
        const date = day.toISOString().slice(0, 10);
        for (const days of [monthDays(date, zone), weekDays(date, zone)]) {
          assert.equal(days.length % 7, 0);
          assert.ok(days.some((d) => d.date === date));
          days.forEach((d, i) => {
            assert.equal(dateOf(d.start, zone), d.date);
            if (i > 0) assert.equal(days[i - 1]?.end, d.start);
          });
        }
      }
    )
  );
  const [long] = monthDays('2026-10-25', BERLIN).filter((d) => d.date === '2026-10-25');
  assert.equal((long!.end - long!.start) / 3_600_000, 25);
});

test('what is moved keeps its time of day, whatever the clocks do', () => {
  const at = Date.parse('2026-10-24T07:30:00Z');
  assert.equal(
    new Date(atSameTime(at, '2026-10-26', BERLIN)).toISOString(),
    '2026-10-26T08:30:00.000Z'
  );
  assert.equal(shiftDays(at, 2, BERLIN), atSameTime(at, '2026-10-26', BERLIN));
  assert.equal(hourOf(atHour(at, '2026-10-26', 14, BERLIN), BERLIN), 14);
  // Half past two is left out on that day.
  const night = Date.parse('2026-03-28T01:30:00Z');
  assert.equal(
    new Date(atSameTime(night, '2026-03-29', BERLIN)).toISOString(),
    '2026-03-29T01:30:00.000Z'
  );
});

test('a day, week and month are those of the zone', () => {
  const sunday = Date.parse('2026-11-29T22:30:00Z');
  const later = Date.parse('2026-11-29T23:30:00Z');
  for (const period of ['day', 'week'] as const) {
    assert.equal(isSamePeriod(sunday, later, period, 'Etc/UTC'), true);
    assert.equal(isSamePeriod(sunday, later, period, BERLIN), false);
  }
  assert.equal(isSamePeriod(sunday, later, 'month', BERLIN), true);
});

test('a month on from its last day is the last day of the next', () => {
  assert.equal(dayAfter('2026-01-31', { months: 1 }), '2026-02-28');
  assert.equal(dayAfter('2026-12-28', { weeks: 1 }), '2027-01-04');
});
