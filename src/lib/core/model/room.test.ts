import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { beyondRoom, tellsOfNoRoom } from './room.ts';

test('what stays fits into the room, and was used later than all that goes', () => {
  const sizes = fc.array(fc.integer({ min: 1, max: 50 }));
  fc.assert(
    fc.property(sizes, fc.nat(400), (bytes, room) => {
      const things = bytes.map((size, place) => ({ size, place }));
      const going = beyondRoom(things, ({ size }) => size, room);
      const staying = things.slice(0, things.length - going.length);
      assert.deepEqual([...staying, ...going], things);
      const taken = staying.reduce((sum, { size }) => sum + size, 0);
      assert.ok(taken <= room);
      // No more goes than must.
      if (going[0]) assert.ok(taken + going[0].size > room);
    })
  );
});

test('a full disk is known by what browsers say of it', () => {
  assert.ok(tellsOfNoRoom('The current transaction exceeded its quota limitations.'));
  assert.ok(tellsOfNoRoom('QuotaExceededError'));
  assert.ok(!tellsOfNoRoom('The file could not be read.'));
});
