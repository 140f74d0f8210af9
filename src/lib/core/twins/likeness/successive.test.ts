import assert from 'node:assert/strict';
import { test } from 'node:test';
import { anItem } from '../../testing.ts';
import { successiveNumbers } from './successive.ts';

/** By title what number it has, of titles in the order in which they were published. */
function numbersOf(titles: readonly string[], placeOf: (at: number) => string = () => 'channel') {
  const items = titles.map((title, at) =>
    anItem({
      id: `v${at}`,
      kind: 'video',
      title,
      placeId: placeOf(at),
      published: new Date(Date.UTC(2021, 0, 1 + 7 * at)).toISOString()
    })
  );
  const found = successiveNumbers([...items].reverse());
  return items.map((item) => found.get(item) ?? null);
}

test('a number that the next title goes on from is one of a series', () => {
  assert.deepEqual(
    numbersOf([
      'Floor loom, evening one: the frame',
      'Dye day: madder',
      'Floor loom, evening two: the shafts',
      'The barn, evening three'
    ]),
    [1, null, 2, 3]
  );
  assert.deepEqual(numbersOf(['Kitchen 1', 'Kitchen 2 – cabinets', 'Kitchen 3 | done']), [1, 2, 3]);
  assert.deepEqual(numbersOf(['Abend eins', 'Abend zwei']), [1, 2]);
  assert.deepEqual(numbersOf(['Loom II', 'Loom III']), [2, 3]);
});

test('where no dates are known the numbers are in order', () => {
  const items = ['Kitchen 3', 'Kitchen 2', 'Kitchen 1'].map((title, at) =>
    anItem({ id: `v${at}`, kind: 'video', title, published: null })
  );
  const found = successiveNumbers(items);
  assert.deepEqual(
    items.map((item) => found.get(item)),
    [3, 2, 1]
  );
});

test('two series by one name are told apart, and both count', () => {
  assert.deepEqual(
    numbersOf(['Scarf, day 1', 'Scarf, day 2', 'Rug, day 1', 'Rug, day 2']),
    [1, 2, 1, 2]
  );
});

test('a number that nothing goes on from, that counts things, or that stands elsewhere is none', () => {
  const none = [
    ['Summer 1', 'Summer 3'],
    ['Loom 2', 'Loom 1'],
    ['Top 5 shuttles', 'Top 6 shuttles'],
    ['In 3: warped', 'In 4: warped'],
    ['Only one', 'Only me'],
    ['Room 2020', 'Room 2021']
  ];
  for (const titles of none) assert.deepEqual(numbersOf(titles), [null, null], titles[0]);
  assert.deepEqual(
    numbersOf(['Loom 1', 'Loom 2'], (at) => `place ${at}`),
    [null, null]
  );
});

test('a title without end that was made to be slow is read at once', () => {
  const began = performance.now();
  assert.deepEqual(numbersOf(["a'".repeat(150_000)]), [null]);
  // It takes some milliseconds, and minutes where each letter is tried as the beginning of the word.
  assert.ok(performance.now() - began < 5_000);
});
