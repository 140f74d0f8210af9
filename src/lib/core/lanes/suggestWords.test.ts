import assert from 'node:assert/strict';
import test from 'node:test';
import fc from 'fast-check';
import { matches, searchSchema } from './search.ts';
import { suggestWords, type Suggestible } from './suggestWords.ts';

const item = (title: string, tags: string[] = [], summary = ''): Suggestible => ({
  title,
  summary,
  tags,
  language: 'en'
});
const catalogue = [
  item('Dyeing wool with madder root', ['dye', 'wool'], 'A mordant of alum, and slow heat.'),
  item('Madder again: a deeper red', ['dye'], 'More mordant, and madder root from the garden.'),
  item('Indigo and the alum question', ['dye'], 'Indigo needs no mordant.'),
  item('Threading the loom', ['loom'], 'Heddles, one by one. https://wrenfold.example/madder'),
  item('Tying up the loom', ['loom'], 'Treadles and shafts.'),
  item('Heddles that stick', ['loom'], 'Wax the heddles.'),
  item('Wool from the hill farm', ['wool'], 'Fleece, and what it costs.')
];
const words = (...given: string[]) => suggestWords(catalogue, given, 'words').map((s) => s.word);

test('what the catalogue says together with a word is suggested first, with how often and how many', () => {
  const [first] = suggestWords(catalogue, ['madder'], 'words');
  assert.equal(first?.word, 'root');
  assert.deepEqual([first.together, first.items], [2, 2]);
  assert.ok(words('madder').includes('mordant'));
  const mordant = suggestWords(catalogue, ['madder'], 'words').find((s) => s.word === 'mordant');
  assert.deepEqual([mordant?.together, mordant?.items], [2, 3]);
});

test('small words, the given word, addresses and what stands with it by chance are not suggested', () => {
  const found = words('madder');
  for (const word of ['and', 'madder', 'wrenfold', 'loom', 'heddles', 'wool'])
    assert.ok(!found.includes(word), word);
});

test('without a word, those of several items are suggested, in the form that is written most', () => {
  const found = words();
  assert.ok(found.includes('heddles') && found.includes('loom') && found.includes('mordant'));
  assert.ok(!found.includes('costs'));
});

test('phrases are two telling words in a row, and tags are as they are written', () => {
  assert.deepEqual(
    suggestWords(catalogue, ['mordant'], 'phrases').map((s) => s.word),
    ['madder root']
  );
  assert.deepEqual(
    suggestWords(catalogue, ['madder'], 'tags').map((s) => s.word),
    ['dye']
  );
});

test('whatever is suggested finds as many items as it says', () => {
  const vocabulary = 'loom warp weft dye wool sett reed'.split(' ');
  const some = fc.array(
    fc
      .array(fc.constantFrom(...vocabulary), { minLength: 1, maxLength: 5 })
      .map((said) => item(said.join(' '), [said[0] ?? ''])),
    { maxLength: 12 }
  );
  const kind = fc.constantFrom('words' as const, 'phrases' as const, 'tags' as const);
  fc.assert(
    fc.property(some, fc.subarray(vocabulary, { maxLength: 2 }), kind, (items, given, which) => {
      for (const { word, items: count, together } of suggestWords(items, given, which)) {
        const search = searchSchema.parse({ any: [word] });
        assert.equal(count, items.filter((one) => matches(one, search)).length);
        assert.ok(together <= count);
        assert.ok(!given.includes(word));
      }
    })
  );
});
