import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { splitLine } from './splitLine.ts';

test('a line is parted where a reader would pause, near its middle', () => {
  assert.deepEqual(splitLine('Wind the warp. Then thread it.'), [
    'Wind the warp.',
    'Then thread it.'
  ]);
  assert.deepEqual(splitLine('Three parts dark, two parts light and one thread'), [
    'Three parts dark,',
    'two parts light and one thread'
  ]);
  assert.deepEqual(splitLine('Beat it lightly now'), ['Beat it', 'lightly now']);
  assert.equal(splitLine('Selvedge'), null);
});

test('no word is lost, and neither half is empty', () => {
  fc.assert(
    fc.property(fc.array(fc.stringMatching(/^[a-zäß]{1,9}[.,;]?$/), { minLength: 2 }), (words) => {
      const halves = splitLine(words.join(' '));
      assert.ok(halves && halves.every(Boolean));
      assert.equal(halves.join(' '), words.join(' '));
    })
  );
});
