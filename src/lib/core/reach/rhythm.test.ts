import assert from 'node:assert/strict';
import test from 'node:test';
import { seeded } from '../seeded.ts';
import { dateOfDay, dayOfDate, localHours, weekdayOfDay } from './day.ts';
import type { VisitHours } from './reachRow.ts';
import { rhythmOf } from './rhythm.ts';

const FIRST = dayOfDate('2026-03-02');

/** Visits of so many days, more of them in the evening of Sundays. */
function visitHours(days: number, evening = 20): VisitHours[] {
  const next = seeded(3);
  return Array.from({ length: days }, (_, i) => ({
    id: `blog ${FIRST + i}`,
    placeId: 'blog',
    day: FIRST + i,
    hours: Array.from({ length: 24 }, (_, h) => {
      const isPeak = h === evening && weekdayOfDay(FIRST + i) === 6;
      return Math.floor((isPeak ? 40 : 4) * (0.5 + next()));
    })
  }));
}

test('days and dates lead to each other, and Monday is the first weekday', () => {
  assert.equal(dateOfDay(dayOfDate('2026-11-26')), '2026-11-26');
  assert.equal(weekdayOfDay(dayOfDate('2026-11-23')), 0);
  assert.equal(weekdayOfDay(dayOfDate('1969-12-28')), 6);
});

test('local hours follow clock changes and zones of quarter hours', () => {
  const berlin = localHours('Europe/Berlin');
  assert.equal(berlin(Date.parse('2026-03-29T00:59:00Z')).hour, 1);
  assert.equal(berlin(Date.parse('2026-03-29T01:00:00Z')).hour, 3);
  const kathmandu = localHours('Asia/Kathmandu')(Date.parse('2026-11-26T18:20:00Z'));
  assert.deepEqual(kathmandu, { day: dayOfDate('2026-11-27'), hour: 0 });
});

test('the busiest hour is found in local time', () => {
  const rhythm = rhythmOf(visitHours(28), 'America/New_York')!;
  const shares = rhythm.shares.flat();
  // Three in the afternoon on the first of these Sundays, four on the others: clocks were set forward.
  assert.equal(shares.indexOf(1), 6 * 24 + 16);
  assert.ok(shares.every((share) => share >= 0 && share <= 1));
  assert.equal(rhythm.days, 28);
});

test('a few days, or a few visits, say nothing', () => {
  assert.equal(rhythmOf(visitHours(13), 'Europe/Berlin'), null);
  assert.equal(rhythmOf([], 'Europe/Berlin'), null);
});
