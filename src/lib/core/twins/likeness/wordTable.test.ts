import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { Counter } from './counter.ts';
import { Units } from './units.ts';
import { WordTable } from './wordTable.ts';

test('a word is made once, and found again wherever it stands', () => {
  const words = fc.array(fc.string({ unit: fc.constantFrom('a', 'b', 'ß', '𝄞'), minLength: 1 }), {
    maxLength: 300
  });
  fc.assert(
    fc.property(words, (said) => {
      const made: string[] = [];
      const table = new WordTable((word) => made.push(word));
      const units = new Units().of(said.join(' '));
      let from = 0;
      for (const word of said) {
        const number = table.at(units, from, from + word.length);
        assert.equal(made[number - 1], word);
        from += word.length + 1;
      }
      assert.equal(made.length, new Set(said).size);
    })
  );
});

test('none of 20,000 words is lost while the table grows', () => {
  const words = Array.from({ length: 20_000 }, (_, i) => `shed${i}`);
  const table = new WordTable((word) => word);
  const units = new Units();
  for (const word of [...words, ...words])
    assert.equal(table.at(units.of(word), 0, word.length), word);
});

test('numbers are counted anew each time', () => {
  const numbers = fc.array(fc.integer({ min: 0, max: 300_000 }), { maxLength: 40 });
  const counter = new Counter();
  fc.assert(
    fc.property(numbers, numbers, (counted, without) => {
      for (const number of counted) counter.add(number);
      const { numbers: told, times } = counter.take(without);
      const wanted = [...new Set(counted)].filter((n) => !without.includes(n));
      assert.deepEqual(
        [...told],
        wanted.sort((a, b) => a - b)
      );
      assert.deepEqual(
        [...times],
        wanted.map((n) => counted.filter((m) => m === n).length)
      );
    })
  );
});
