import assert from 'node:assert/strict';
import { test } from 'node:test';
import { aCandidate, aTalk } from '../../testing.ts';
import { onLines, writeHtml } from '../../markup/html.ts';
import { bodyOf } from '../template/render.ts';
import { comparisonsIn } from './comparison.ts';
import { layOut } from './layOut.ts';
import { writeSentence } from './spoken.ts';

function candidates(lines: string[]) {
  const talk = aTalk(lines);
  const rows = talk.sentences.flatMap((_, index) => {
    const written = writeSentence(talk, index);
    return 'words' in written ? [aCandidate({ index, words: written.words })] : [];
  });
  return { talk, rows };
}
const told = (lines: string[]) => {
  const { talk, rows } = candidates(lines);
  return comparisonsIn(talk, rows).map((run) => run.map(({ name, value }) => [name, value]));
};

test('three figures of three things are a comparison', () => {
  const expected = [
    [
      ['The wool', 'Ten minutes'],
      ['The linen', 'Fifteen minutes'],
      ['Cotton', 'Eight minutes']
    ]
  ];
  assert.deepEqual(
    told([
      'The wool takes ten minutes.',
      'The linen takes fifteen minutes.',
      'Cotton takes about eight minutes.'
    ]),
    expected
  );
  assert.deepEqual(
    told([
      'The wool takes ten minutes, the linen takes fifteen minutes and cotton takes eight minutes.'
    ]),
    expected
  );
});

test('two figures, other units, the same thing again and what is not named are none', () => {
  for (const lines of [
    ['The wool takes ten minutes.', 'The linen takes fifteen minutes.'],
    [
      'The wool takes ten minutes.',
      'The linen weighs fifteen grams.',
      'Cotton costs eight pounds.'
    ],
    [
      'If the wool takes ten minutes.',
      'If the linen takes nine minutes.',
      'If cotton takes six minutes.'
    ],
    ['The wool takes ten minutes.', 'It takes fifteen minutes.', 'This one takes eight minutes.'],
    [
      'The wool takes ten minutes.',
      'The wool takes nine minutes.',
      'The wool takes eight minutes.'
    ],
    [
      'The wool takes ten minutes.',
      'We talk of the reed now.',
      'The heddles come after that.',
      'The beam is last of all.',
      'The linen takes fifteen minutes.',
      'Cotton takes eight minutes.'
    ]
  ])
    assert.deepEqual(told(lines), [], lines.join(' '));
});

test('a comparison becomes a table, and what says more than its figures stays', () => {
  const { talk, rows } = candidates([
    'The wool takes ten minutes, and I like to sit beside the pot.',
    'The linen takes fifteen minutes.',
    'Cotton takes eight minutes.',
    'Rinse it after that until the water is clear.'
  ]);
  const html = writeHtml(bodyOf(layOut(talk, rows, [], [])));
  assert.match(
    html,
    /<p [^>]*>The wool takes ten minutes, and I like to sit beside the pot\.<\/p>/
  );
  assert.match(
    html,
    /<table><tbody><tr><th scope="row"><p [^>]*>The wool<\/p><\/th><td><p [^>]*>Ten minutes<\/p><\/td><\/tr>/
  );
  assert.doesNotMatch(html, /The linen takes/);
  assert.match(html, /Rinse it after that/);
});

test('a figure that the table does not have keeps its sentence', () => {
  const { talk, rows } = candidates([
    'The wool weighs ninety grams and the wool takes ten minutes.',
    'The linen takes fifteen minutes.',
    'Cotton takes eight minutes.'
  ]);
  const text = writeHtml(onLines(bodyOf(layOut(talk, rows, [], []))));
  assert.match(text, /ninety grams/i);
});
