import assert from 'node:assert/strict';
import { beforeEach, mock, test } from 'node:test';
import { Autosave } from './autosave.svelte.ts';

let text = '';
let written: string[] = [];
let refuses = false;
const autosave = () =>
  new Autosave(
    () => text,
    async () => {
      if (refuses) throw new DOMException('The disk is full.', 'QuotaExceededError');
      written.push(text);
    }
  );
beforeEach(() => {
  [text, written, refuses] = ['', [], false];
  mock.timers.reset();
});

test('what was not changed is not written; what was is, once', async () => {
  const saver = autosave();
  await saver.saveNow();
  assert.deepEqual(written, [], 'nothing was read yet');
  saver.markSaved();
  await saver.saveNow();
  text = 'Twill';
  await saver.saveNow();
  await saver.saveNow();
  assert.deepEqual(written, ['Twill']);
});

test('what is new is written though nobody changed it', async () => {
  const saver = autosave();
  text = 'Made';
  saver.markNew();
  await saver.saveNow();
  assert.deepEqual(written, ['Made']);
});

test('a refused write does not count as saved: it is reported, and tried again by itself', async () => {
  mock.timers.enable({ apis: ['setTimeout'] });
  const saver = autosave();
  saver.markSaved();
  refuses = true;
  text = 'Twill';
  await saver.saveNow();
  assert.equal(saver.problem?.kind, 'storage');
  refuses = false;
  mock.timers.tick(5_000);
  await new Promise(setImmediate);
  assert.deepEqual(written, ['Twill']);
  assert.equal(saver.problem, null);
});

test('writes follow each other; what changed meanwhile is written after', async () => {
  let go: () => void = () => {};
  const order: string[] = [];
  const saver = new Autosave(
    () => text,
    async () => {
      const now = text;
      order.push(`begin ${now}`);
      if (now === 'one') await new Promise<void>((done) => (go = done));
      order.push(`end ${now}`);
    }
  );
  saver.markSaved();
  text = 'one';
  const first = saver.saveNow();
  await new Promise(setImmediate);
  text = 'two';
  const second = saver.saveNow();
  go();
  await Promise.all([first, second]);
  assert.deepEqual(order, ['begin one', 'end one', 'begin two', 'end two']);
});
