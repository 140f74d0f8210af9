import assert from 'node:assert/strict';
import { beforeEach, mock, test } from 'node:test';
import { Autosave } from './autosave.svelte.ts';

interface Fields {
  title: string;
  text: string;
}
let kept: Fields | null = null;
let written: Fields[] = [];
let refuses = false;
/** Holds a write back until it is called. */
let go: (() => void) | null = null;
const local = new Map<string, string>();
globalThis.localStorage = {
  getItem: (name: string) => local.get(name) ?? null,
  setItem: (name: string, value: string) => void local.set(name, value),
  removeItem: (name: string) => void local.delete(name)
} as unknown as Storage;

/** A tab in which the fields are edited. */
function tab() {
  const here: Fields = { title: '', text: '', ...kept };
  const saver = new Autosave<Fields>({
    name: () => 'test',
    read: () => ({ ...here }),
    take: (fields) => Object.assign(here, fields),
    stored: () => Promise.resolve(kept),
    async update(merge) {
      if (refuses) throw new DOMException('The disk is full.', 'QuotaExceededError');
      const merged = merge(kept);
      if (go) await new Promise<void>((done) => (go = done));
      kept = merged;
      written.push(merged);
    }
  });
  saver.begin();
  return { here, saver };
}
beforeEach(() => {
  [kept, written, refuses, go] = [null, [], false, null];
  local.clear();
  mock.timers.reset();
});

test('what was not changed is not written; what was is, once', async () => {
  const { here, saver } = tab();
  await saver.saveNow();
  here.title = 'Twill';
  await saver.saveNow();
  await saver.saveNow();
  assert.deepEqual(written, [{ title: 'Twill', text: '' }]);
});

test('what is new is written though nobody changed it', async () => {
  const { saver } = tab();
  saver.begin(true);
  await saver.saveNow();
  assert.equal(written.length, 1);
});

test('a refused write is reported and tried again; meanwhile what was typed lies elsewhere', async () => {
  mock.timers.enable({ apis: ['setTimeout'] });
  const { here, saver } = tab();
  refuses = true;
  here.title = 'Twill';
  await saver.saveNow();
  assert.equal(saver.problem?.kind, 'storage');
  assert.equal(tab().here.title, 'Twill', 'a page that is loaded anew has it');
  refuses = false;
  mock.timers.tick(5_000);
  await new Promise(setImmediate);
  assert.equal(kept?.title, 'Twill');
  assert.equal(saver.problem, null);
});

test('what was typed last is there again, though the page went before it could be saved', () => {
  const { here, saver } = tab();
  here.text = 'Beat lightly';
  go = () => {};
  saver.leave();
  const next = tab();
  assert.equal(next.here.text, 'Beat lightly');
});

test('writes follow each other; what changed meanwhile is written after', async () => {
  const { here, saver } = tab();
  go = () => {};
  here.title = 'one';
  const first = saver.saveNow();
  await new Promise(setImmediate);
  here.title = 'two';
  const second = saver.saveNow();
  const release = go;
  go = null;
  release();
  await Promise.all([first, second]);
  assert.deepEqual(
    written.map((w) => w.title),
    ['one', 'two']
  );
});

test('two tabs that change different fields keep both', async () => {
  const [one, two] = [tab(), tab()];
  one.here.title = 'Twill';
  await one.saver.saveNow();
  two.here.text = 'Beat lightly';
  await two.saver.saveNow();
  assert.deepEqual(kept, { title: 'Twill', text: 'Beat lightly' });
  assert.equal(two.here.title, 'Twill');
});

test('where two tabs change the same field, neither wipes the other, and the user chooses', async () => {
  const [one, two, three] = [tab(), tab(), tab()];
  one.here.title = 'Twill';
  await one.saver.saveNow();
  two.here.title = 'Satin';
  await two.saver.saveNow();
  assert.equal(kept?.title, 'Twill');
  assert.deepEqual(two.saver.clashing, { title: 'Twill' });
  assert.equal(two.here.title, 'Satin', 'what was typed is still there');
  await two.saver.keepMine();
  assert.equal(kept?.title, 'Satin');
  three.here.title = 'Linen';
  await three.saver.saveNow();
  three.saver.takeTheirs();
  await three.saver.saveNow();
  assert.deepEqual([three.here.title, kept?.title], ['Satin', 'Satin']);
  assert.deepEqual(three.saver.clashing, {});
});

test('what one page could not save and another changed since is a clash as well', async () => {
  const { here, saver } = tab();
  here.title = 'Satin';
  refuses = true;
  saver.leave();
  await saver.saveNow();
  kept = { title: 'Twill', text: '' };
  refuses = false;
  const next = tab();
  assert.equal(next.here.title, 'Satin');
  assert.deepEqual(next.saver.clashing, { title: 'Twill' });
});

test('undo puts back what was changed, and is saved itself', async () => {
  const { here, saver } = tab();
  saver.change(() => (here.title = 'Twill'));
  here.text = 'Beat lightly';
  saver.undo();
  assert.deepEqual(here, { title: 'Twill', text: '' });
  saver.undo();
  saver.redo();
  await saver.saveNow();
  assert.deepEqual(kept, { title: 'Twill', text: '' });
});
