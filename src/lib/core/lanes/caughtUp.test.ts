import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { caughtUp } from './caughtUp.ts';
import { paceSchema } from './pace.ts';

const HOUR = 3_600_000;
const at = (iso: string) => Date.parse(iso);
const history = { placed: [], since: at('2026-05-01T00:00:00Z'), allowances: [] };
const daily = paceSchema.parse({ zone: 'Etc/UTC', perDay: 1, gap: 60, hours: { from: 8, to: 20 } });

test('two were due while it was closed: one goes out now, the other tomorrow', () => {
  const [closed, now] = [at('2026-05-04T21:00:00Z'), at('2026-05-06T15:00:00Z')];
  const slots = caughtUp(daily, history, 5, closed, now);
  assert.deepEqual(slots, [
    { at: now, waitsFor: null },
    { at: at('2026-05-07T08:00:00Z'), waitsFor: 'gap' }
  ]);
});

test('nothing fell due where nothing was planned, or where its time had not come', () => {
  const closed = at('2026-05-04T21:00:00Z');
  assert.deepEqual(caughtUp(daily, history, 0, closed, closed + 90 * HOUR), []);
  assert.deepEqual(caughtUp(daily, history, 3, closed, closed + 2 * HOUR), []);
});

test('never more fell due than were planned, and what is caught up keeps to the day', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 12 }),
      fc.integer({ min: 0, max: 400 }),
      fc.integer({ min: 1, max: 4 }),
      (planned, hours, perDay) => {
        const closed = at('2026-05-04T06:00:00Z');
        const pace = { ...daily, perDay };
        const slots = caughtUp(pace, history, planned, closed, closed + hours * HOUR);
        assert.ok(slots.length <= planned);
        const days = slots.map((s) => new Date(s.at).toISOString().slice(0, 10));
        for (const day of days) assert.ok(days.filter((d) => d === day).length <= perDay);
        assert.ok(slots.every((s) => s.at >= closed + hours * HOUR));
      }
    )
  );
});
