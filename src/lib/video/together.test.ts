import assert from 'node:assert/strict';
import { test } from 'node:test';
import { together } from './together.ts';

const later = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

test('all are done before it is done', async () => {
  const ended: string[] = [];
  const work = (name: string, ms: number) => async () => {
    await later(ms);
    ended.push(name);
  };
  await together([work('slow', 20), work('quick', 1)], () => assert.fail('Nothing failed.'));
  assert.deepEqual(ended, ['quick', 'slow']);
});

test('when one fails the others are stopped once and waited for, and the first failure is reported', async () => {
  let isStopped = 0;
  let isOpen = true;
  const holding = async () => {
    while (isStopped === 0) await later(1);
    await later(10);
    isOpen = false;
    throw new Error('Stopped.');
  };
  const failing = async () => {
    await later(2);
    throw new Error('The disk is full.');
  };
  await assert.rejects(
    together([holding, failing], () => isStopped++),
    { message: 'The disk is full.' }
  );
  assert.equal(isStopped, 1);
  assert.equal(isOpen, false);
});

test('what fails before its first wait is a failure like any other', async () => {
  await assert.rejects(
    together(
      [
        async () => {
          throw new Error('At once.');
        }
      ],
      () => {}
    ),
    { message: 'At once.' }
  );
});
