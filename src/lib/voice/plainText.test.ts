import assert from 'node:assert/strict';
import { test } from 'node:test';
import { toAscii, wordsOf } from './plainText.ts';

test('accents are taken off, and signs without letters become what is read at their place', () => {
  assert.equal(toAscii('Ærø’s  café – «straße»…'), "Aero's cafe , strasse .");
});

test('words are told without signs, in small letters but for what is spelt', () => {
  assert.deepEqual(wordsOf('"Wind" the PDF, I - said.'), ['wind', 'the', 'PDF', 'i', '-', 'said']);
  assert.deepEqual(wordsOf('one ... two'), ['one', '', 'two']);
});
