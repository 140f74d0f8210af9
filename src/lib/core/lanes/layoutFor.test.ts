import assert from 'node:assert/strict';
import { test } from 'node:test';
import { newLane } from './lane.ts';
import { layoutFor } from './layoutFor.ts';

const make = {
  ...newLane('l', 'Lane', 'Etc/UTC', 0).make,
  layout: 'usual',
  layoutRules: [
    { by: 'tag' as const, is: ' #Dyeing ', layout: 'dyeing' },
    { by: 'language' as const, is: 'DE', layout: 'german' },
    { by: 'language' as const, is: '', layout: 'never' }
  ]
};

test('the first rule that an item keeps to gives its layout', () => {
  const cases: [{ language: string; tags: string[] }, string][] = [
    [{ language: 'en', tags: [] }, 'usual'],
    [{ language: 'de-AT', tags: [] }, 'german'],
    [{ language: 'de', tags: ['dyeing'] }, 'dyeing'],
    [{ language: 'en-GB', tags: ['#DYEING', 'wool'] }, 'dyeing'],
    // A rule that says nothing yet takes nothing, whatever the item lacks.
    [{ language: '', tags: [''] }, 'usual']
  ];
  for (const [item, layout] of cases)
    assert.equal(layoutFor(make, item), layout, JSON.stringify(item));
});

test('without rules and choice it is the layout of the last post', () => {
  const { make: fresh } = newLane('l', 'Lane', 'Etc/UTC', 0);
  assert.equal(layoutFor(fresh, { language: 'de', tags: ['Dyeing'] }), null);
});
