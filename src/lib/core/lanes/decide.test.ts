import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { outboxStateSchema } from '../delivery/outbox.ts';
import { anEntry, aRecord } from '../testing.ts';
import { decide, isUndecided, type Decision } from './decide.ts';

const blocking = { level: 'blocking', of: 'post', finding: { kind: 'not-from-talk' } } as const;
const wrong = { ...blocking, level: 'wrong' } as const;
const inReview = (key: string) => anEntry({ key, state: 'in-review' });

test('what is approved is planned at each of its places', () => {
  const record = aRecord({ state: 'in-review', keys: ['a', 'b'] });
  const decided = decide(record, [inReview('a'), inReview('b')], 'approve', 7);
  assert.deepEqual(decided?.record, { ...record, state: 'planned', changed: 7 });
  assert.deepEqual(
    decided?.kept.map(({ key, state, updated }) => [key, state, updated]),
    [
      ['a', 'planned', 7],
      ['b', 'planned', 7]
    ]
  );
});

test('a blocking finding at one place keeps all of it from being approved, and nothing else does', () => {
  const record = aRecord({ keys: ['a', 'b'] });
  const entries = [inReview('a'), { ...inReview('b'), findings: [blocking] }];
  assert.equal(decide(record, entries, 'approve', 7), null);
  assert.notEqual(decide(record, entries, 'skip', 7), null);
  const sent = { ...entries[1]!, state: 'published' as const };
  assert.notEqual(decide(record, [entries[0]!, sent], 'approve', 7), null);
  const doubtful = { ...inReview('a'), findings: [wrong] };
  assert.notEqual(decide(record, [doubtful], 'approve', 7), null);
});

test('sending back finds it anew, skipping ends it; neither touches what was sent', () => {
  const record = aRecord({ state: 'in-review', keys: ['a', 'b'] });
  const entries = [inReview('a'), anEntry({ key: 'b', state: 'published' })];
  for (const [decision, state] of [
    ['send-back', 'found'],
    ['skip', 'skipped']
  ] as const) {
    const decided = decide(record, entries, decision, 7);
    assert.deepEqual(decided, {
      record: { ...record, keys: [], state, changed: 7 },
      kept: [],
      dropped: ['a']
    });
  }
});

test('every entry that still waits is kept or dropped, and no other', () => {
  const states = fc.array(fc.constantFrom(...outboxStateSchema.options), { maxLength: 6 });
  const decisions = fc.constantFrom<Decision>('approve', 'send-back', 'skip');
  fc.assert(
    fc.property(states, decisions, (given, decision) => {
      const entries = given.map((state, i) => anEntry({ key: String(i), state }));
      const decided = decide(aRecord(), entries, decision, 1);
      const touched = [...(decided?.kept ?? []).map((e) => e.key), ...(decided?.dropped ?? [])];
      assert.deepEqual(
        touched,
        entries.filter(isUndecided).map((e) => e.key)
      );
    })
  );
});
