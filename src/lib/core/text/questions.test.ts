import assert from 'node:assert/strict';
import { test } from 'node:test';
import { isQuestion } from './questions.ts';

const asks = (line: string): boolean => isQuestion(line.split(' '));

test('questions are told by their words alone', () => {
  for (const line of [
    'what do you do with an empty dent in the middle',
    'how do you get a straight edge',
    'why is that',
    'can you see the bubbles',
    'so what am i looking for',
    "the reed has eight dents doesn't it"
  ])
    assert.equal(asks(line), true, line);
});

test('what is told is no question', () => {
  for (const line of [
    'what you do is you lay the loop over the hook',
    'when you lift it the beam turns',
    'i know how it goes',
    'the warp goes through the reed first',
    'tie it and count the threads'
  ])
    assert.equal(asks(line), false, line);
  assert.equal(isQuestion([]), false);
});
