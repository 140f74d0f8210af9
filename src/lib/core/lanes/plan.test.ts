import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { newEntry, type OutboxEntry } from '../delivery/outbox.ts';
import { aPostPayload } from '../testing.ts';
import { paceSchema, whyNotAt, type PaceHistory } from './pace.ts';
import { planItems } from './plan.ts';

const NOW = Date.parse('2026-11-26T08:00:00Z');
const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const NONE: PaceHistory = { placed: [], since: 0, allowances: [] };

const planned = (itemId: string, created: number, pin: OutboxEntry['pin'] = null): OutboxEntry => ({
  ...newEntry(
    {
      key: `${itemId} at blog`,
      itemId,
      placeId: 'blog',
      payload: aPostPayload({}),
      state: 'planned'
    },
    NOW + created
  ),
  laneId: 'lane',
  pin
});
const pace = paceSchema.parse({ zone: 'Etc/UTC', gap: 60, hours: { from: 9, to: 18 } });
const times = (entries: readonly OutboxEntry[]) =>
  planItems(pace, NONE, entries, NOW).map(
    ({ itemId, at }) => `${itemId} ${new Date(at).toISOString().slice(0, 16)}`
  );

test('what has a time of its own goes out then, and the rest around it', () => {
  const pin = { at: Date.parse('2026-11-27T15:00:00Z'), insists: false };
  assert.deepEqual(times([planned('a', 0), planned('b', 1), planned('c', 2, pin)]), [
    'a 2026-11-26T09:00',
    'c 2026-11-27T15:00',
    'b 2026-11-28T09:00'
  ]);
});

test('a time that the pace does not allow any more is put off, unless the user insists on it', () => {
  const night = Date.parse('2026-11-27T03:00:00Z');
  assert.deepEqual(times([planned('a', 0, { at: night, insists: false })]), ['a 2026-11-27T09:00']);
  assert.deepEqual(times([planned('a', 0, { at: night, insists: true })]), ['a 2026-11-27T03:00']);
});

test('wherever things are moved, nothing breaks the pace or the allowance of its place', () => {
  const pin = fc.option(
    fc.record({
      at: fc.integer({ min: NOW - DAY, max: NOW + 20 * DAY }),
      insists: fc.constant(false)
    })
  );
  fc.assert(
    fc.property(
      fc.array(pin, { maxLength: 12 }),
      fc.integer({ min: 1, max: 3 }),
      fc.integer({ min: 1, max: 4 }),
      (pins, perDay, most) => {
        const asked = { ...pace, perDay, perWeek: 5 };
        const allowance = { most, per: 'week' as const, left: most, asOf: NOW, used: [] };
        const history = { ...NONE, allowances: [allowance] };
        const items = planItems(
          asked,
          history,
          pins.map((p, i) => planned(`item ${i}`, i, p)),
          NOW
        );
        assert.equal(items.length, pins.length);
        for (const item of items) {
          const others = items.filter((i) => i !== item).map((i) => i.at);
          const beside = { ...NONE, placed: others, allowances: [{ ...allowance, used: others }] };
          assert.equal(whyNotAt(asked, beside, item.at), null);
        }
      }
    ),
    { numRuns: 200 }
  );
});
