import './browserOf.ts';
import assert from 'node:assert/strict';
import { after, test } from 'node:test';
import { anItem } from '../src/lib/core/testing.ts';
import { sceneSchema } from '../src/lib/core/narration/scenes.ts';
import type { Line } from '../src/lib/core/narration/line.ts';

// Ports alone do not keep the process from ending.
const awake = setInterval(() => {}, 1_000);
after(() => clearInterval(awake));

// What paints has no place here; it stays silent.
const Narrating = globalThis.Worker;
globalThis.Worker = class {
  constructor(url: URL, options?: WorkerOptions) {
    return /narration/.test(url.pathname) ? new Narrating(url, options) : silent;
  }
} as typeof Worker;
const silent = {
  postMessage() {},
  addEventListener() {},
  removeEventListener() {},
  terminate() {}
};

const { Booth } = await import('../src/lib/ui/booth/boothState.svelte.ts');
const { beginNarration } = await import('../src/lib/work/beginNarration.ts');

async function boothWith(...texts: string[]): Promise<InstanceType<typeof Booth>> {
  const booth = new Booth();
  const post = anItem({ id: 'p', kind: 'post', title: 'Warping', language: 'en' });
  booth.narration = await beginNarration(post, '', []);
  const lines = texts.map((text, i): Line => ({ id: `l${i}`, text, spoken: text, source: null }));
  const pieces = texts.map((text, i) => ({ role: 'main', text, line: i }));
  booth.narration.scenes = [sceneSchema.parse({ id: 's', kind: 'statement', lines, pieces })];
  booth.post = post;
  booth.autosave.begin();
  return booth;
}
const lineOf = (booth: InstanceType<typeof Booth>) => {
  const { lines, pieces } = booth.narration!.scenes[0]!;
  const { text, spoken } = lines[0]!;
  return { text, spoken, shown: pieces.map((piece) => piece.text).join(' ') };
};
async function until(is: () => boolean): Promise<void> {
  for (let i = 0; i < 500 && !is(); i++) await new Promise((done) => setTimeout(done, 20));
  assert.ok(is());
}

test('what is said and shown of a rewritten line follows it, as part of the same step', async () => {
  const booth = await boothWith('Wind the warp.');
  await booth.rewrite('l0', 'Wind 24 turns.');
  const after = lineOf(booth);
  assert.equal(after.spoken, 'Wind twenty-four turns.');
  assert.match(after.shown, /24 turns/);
  booth.autosave.undo();
  assert.equal(lineOf(booth).spoken, 'Wind the warp.');
  booth.autosave.redo();
  assert.deepEqual(lineOf(booth), after);
});

test('a line that is undone before it is turned into speech is turned into speech when it is redone', async () => {
  const booth = await boothWith('Wind the warp.');
  const asked = booth.rewrite('l0', 'Wind 24 turns.');
  booth.autosave.undo();
  await asked;
  assert.deepEqual(
    [lineOf(booth).text, lineOf(booth).spoken],
    ['Wind the warp.', 'Wind the warp.']
  );
  booth.autosave.redo();
  await until(() => /24 turns/.test(lineOf(booth).shown));
  assert.equal(lineOf(booth).spoken, 'Wind twenty-four turns.');
  // It is still one step.
  booth.autosave.undo();
  assert.deepEqual(lineOf(booth).text, 'Wind the warp.');
  assert.equal(booth.autosave.canUndo, false);
});
