import assert from 'node:assert/strict';
import { test } from 'node:test';
import { arePair, thesisIn, weightOfFigures } from './emphasis.ts';

test('halves of a pair are known by their build', () => {
  assert.ok(arePair('Dark means that you hold it up.', 'Light means that it looks pale.'));
  assert.ok(arePair('A cup in the morning wakes you.', 'A cup in the evening keeps you awake.'));
  assert.ok(!arePair('We had tea.', 'The warp needs a new reed and a good tension.'));
  assert.ok(!arePair('Squint at it.', 'The stripes run together across the street.'));
  assert.ok(!arePair('', ''));
});

test('the thesis lays down a rule, whatever stands in front of it', () => {
  const bread = [
    'We have baked on Saturdays for eleven years.',
    'Our oven is old and its door does not close.',
    'The rule for a good crust is steam in the first ten minutes.',
    'A tray of water at the bottom makes the steam.',
    'The crust stays soft and stretches while there is steam.',
    'Would you do otherwise?'
  ];
  assert.equal(thesisIn(bread, 'A crust at home', 'en'), 2);
  const garten = [
    'Seit drei Jahren haben wir einen Garten am Hang.',
    'Das Wichtigste ist, dass das Wasser im Garten bleibt.',
    'Jede Mulde hält das Wasser einen Tag länger.'
  ];
  assert.equal(thesisIn(garten, 'Wasser am Hang', 'de'), 1);
  assert.equal(thesisIn([], 'Nothing', 'en'), -1);
  assert.equal(thesisIn(['Why?', 'Oh.'], 'Nothing', 'en'), -1);
});

test('a sentence full of figures tells less to the ear', () => {
  assert.equal(weightOfFigures('It is 216 ends, 36 repeats of 6, at 5,400 metres.'), 0.5);
  assert.equal(weightOfFigures('It takes 20 minutes.'), 1);
});
