import assert from 'node:assert/strict';
import { test } from 'node:test';
import { History } from './history.svelte.ts';

const of = (title: string, tags: string[] = []) => ({ title, tags });

test('typing is one step until it pauses; each step holds its own fields', () => {
  const history = new History<ReturnType<typeof of>>();
  history.begin(of(''));
  history.note(of('T'), 0);
  history.note(of('Tw'), 200);
  history.note(of('Tw', ['loom']), 300);
  history.note(of('Two', ['loom']), 5_000);
  assert.deepEqual(history.undo(), { title: 'Tw' });
  assert.deepEqual(history.undo(), { tags: [] });
  assert.deepEqual(history.undo(), { title: '' });
  assert.equal(history.undo(), null);
  assert.deepEqual(history.redo(), { title: 'Tw' });
});

test('a change after an undo leaves nothing to redo', () => {
  const history = new History<ReturnType<typeof of>>();
  history.begin(of('a'));
  history.note(of('b'), 0);
  history.undo();
  assert.equal(history.canRedo, true);
  history.note(of('c'), 10);
  assert.equal(history.canRedo, false);
  assert.deepEqual(history.undo(), { title: 'a' });
});

test('what was closed does not go on, however soon', () => {
  const history = new History<ReturnType<typeof of>>();
  history.begin(of('a'));
  history.note(of('b'), 0);
  history.close();
  history.note(of('c'), 1);
  assert.deepEqual(history.undo(), { title: 'b' });
});

test('what came from elsewhere is not undone here', () => {
  const history = new History<ReturnType<typeof of>>();
  history.begin(of('a', ['x']));
  history.note(of('b', ['x']), 0);
  history.rebase({ tags: ['x', 'y'] });
  history.note(of('b', ['x', 'y']), 10);
  assert.deepEqual(history.undo(), { title: 'a' });
  assert.equal(history.canUndo, false);
});

test('what follows from a step later belongs to it, unless another came since', () => {
  const history = new History<ReturnType<typeof of>>();
  history.begin(of('a'));
  history.note(of('b'), 0);
  const { step } = history;
  history.extend(step, of('b', ['loom']), 2_000);
  assert.deepEqual(history.undo(), { title: 'a', tags: [] });
  assert.deepEqual(history.redo(), { title: 'b', tags: ['loom'] });
  history.note(of('c', ['loom']), 9_000);
  history.extend(step, of('c', ['warp']), 9_100);
  assert.deepEqual(history.undo(), { tags: ['loom'] });
});
