import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { changesSince, takePieces, textChanges } from './merge.ts';

test('a hand edit elsewhere stays when a change is taken', () => {
  const base = ['a', 'b', 'c', 'd'];
  const mine = ['a', 'b by hand', 'c', 'd'];
  const fresh = ['a', 'b', 'c', 'd anew', 'e'];
  const pieces = changesSince(base, mine, fresh);
  assert.deepEqual(pieces, [{ from: 3, to: 4, fresh: ['d anew', 'e'], isTouched: false }]);
  assert.deepEqual(takePieces(mine, pieces), ['a', 'b by hand', 'c', 'd anew', 'e']);
});

test('a change at a hand edit is reported as such, and replaces it only when taken', () => {
  const pieces = changesSince(['a', 'b', 'c'], ['a', 'b by hand', 'c'], ['a', 'b anew', 'c']);
  assert.deepEqual(pieces, [{ from: 1, to: 2, fresh: ['b anew'], isTouched: true }]);
  assert.deepEqual(takePieces(['a', 'b by hand', 'c'], pieces), ['a', 'b anew', 'c']);
});

test('what the user did already is no change', () => {
  assert.deepEqual(changesSince(['a', 'b'], ['a', 'c'], ['a', 'c']), []);
});

test('what goes and what comes: words of a sentence that changed, else whole sentences', () => {
  assert.deepEqual(textChanges('Tie it off now.', 'Tie it up now.'), [
    { text: 'Tie it ', is: 'kept' },
    { text: 'off', is: 'out' },
    { text: 'up', is: 'in' },
    { text: ' now.', is: 'kept' }
  ]);
  assert.deepEqual(textChanges('Keep this. Wind a warp on it.', 'Keep this. Then stop.'), [
    { text: 'Keep this. ', is: 'kept' },
    { text: 'Wind a warp on it.', is: 'out' },
    { text: 'Then stop.', is: 'in' }
  ]);
});

test('no text is lost in showing changes', () => {
  const text = fc
    .array(fc.constantFrom('Tie it. ', 'up ', 'Why? ', '\n', 'e.g. ', 'warp'), { maxLength: 8 })
    .map((t) => t.join(''));
  fc.assert(
    fc.property(text, text, (before, after) => {
      const changes = textChanges(before, after);
      const without = (kind: string) =>
        changes
          .filter((c) => c.is !== kind)
          .map((c) => c.text)
          .join('');
      assert.equal(without('in'), before);
      assert.equal(without('out'), after);
    })
  );
});

const blocks = fc.array(fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f'), { maxLength: 8 });

test('an unedited text becomes the fresh one when all is taken, whatever changed', () => {
  fc.assert(
    fc.property(blocks, blocks, (base, fresh) => {
      assert.deepEqual(takePieces(base, changesSince(base, base, fresh)), fresh);
    })
  );
});

test('without a fresh change nothing is offered, whatever was edited', () => {
  fc.assert(
    fc.property(blocks, blocks, (base, mine) => {
      assert.deepEqual(changesSince(base, mine, base), []);
    })
  );
});

test('pieces lie within the text and not over one another', () => {
  fc.assert(
    fc.property(blocks, blocks, blocks, (base, mine, fresh) => {
      const pieces = changesSince(base, mine, fresh);
      for (const [i, { from, to }] of pieces.entries()) {
        assert.ok(from >= 0 && to >= from && to <= mine.length);
        const before = pieces[i - 1];
        assert.ok(from >= (before?.to ?? 0));
      }
    })
  );
});
