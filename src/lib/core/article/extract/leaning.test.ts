import assert from 'node:assert/strict';
import { test } from 'node:test';
import { aTalk } from '../../testing.ts';
import { leansOnBefore } from './leaning.ts';

function leans(line: string): boolean {
  const talk = aTalk([line]);
  return leansOnBefore(
    talk,
    talk.words.map(({ text }, at) => ({ text, at }))
  );
}

test('a sentence whose pronoun has nothing to stand for leans on the one before', () => {
  for (const line of [
    'It goes through the reed twice.',
    'They go through the reed twice.',
    'Lay them between the fingers.',
    'Give it a push with the thumb.',
    'That is why the warp must be tight.',
    'Because the warp must be tight.',
    'Then the warp goes through the reed.',
    'A second one for the thin threads.',
    'Ask him for the long shuttle.'
  ])
    assert.equal(leans(line), true, line);
});

test('a sentence that names what it speaks of stands by itself', () => {
  for (const line of [
    'The reed is heavy, so lift it with both hands.',
    'Those threads go through the reed first.',
    'The threads are thin, but they hold.',
    'This warp has sixty threads.',
    'You need a reed and a shuttle.',
    'I know that the warp is tight.'
  ])
    assert.equal(leans(line), false, line);
});

test('what stands for nothing needs nothing before it', () => {
  for (const line of [
    'It takes ten minutes to wind the bobbin.',
    'It is important to count the threads.'
  ])
    assert.equal(leans(line), false, line);
});
