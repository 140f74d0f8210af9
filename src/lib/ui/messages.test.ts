import assert from 'node:assert/strict';
import { test } from 'node:test';
import { problemSchema } from '../core/model/place.ts';
import { formatDate, formatDateTime, plural, problemMessage } from './messages.ts';

test('every problem says what happened and what to do, in whole sentences', () => {
  for (const kind of problemSchema.shape.kind.options) {
    const { what, todo } = problemMessage(problemSchema.parse({ kind }));
    assert.match(what, /^\p{Lu}.*\.$/u, kind);
    assert.match(todo, /^\p{Lu}.*\.$/u, kind);
  }
});

test('no two problems say the same', () => {
  const said = problemSchema.shape.kind.options.map(
    (kind) => problemMessage(problemSchema.parse({ kind })).what
  );
  assert.equal(new Set(said).size, said.length);
});

test('numbers take the form of their noun', () => {
  assert.equal(plural(1, 'place', 'places'), '1 place');
  assert.equal(plural(0, 'place', 'places'), '0 places');
  assert.equal(plural(2, 'place', 'places'), '2 places');
});

test('dates are shown in the time zone of the reader, and none as none', () => {
  const iso = new Date(2026, 10, 26, 9, 5).toISOString();
  assert.equal(formatDate(iso), '26 Nov 2026');
  assert.equal(formatDateTime(iso), '26 Nov 2026, 09:05');
  assert.doesNotMatch(formatDate(null), /Invalid|1970/);
});
