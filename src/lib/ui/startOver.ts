import { EVERYTHING } from '$lib/data/everything.ts';
import { undoDiscard } from '$lib/work/discard.ts';
import { startDemo, startEmpty, type Demo } from '$lib/work/start.ts';
import { deck } from './deck.svelte.ts';

const undo = {
  label: 'Undo',
  run: async () => {
    if (await undoDiscard(EVERYTHING, '')) location.reload();
    else deck.say('It can no longer be brought back.');
  }
};

/** Clears everything, and offers to bring it back. */
export async function emptyWithUndo(): Promise<void> {
  await startEmpty();
  deck.say('Everything in this browser was cleared. Nothing changed at your places.', undo);
}

/** Begins with the demo world, and offers to bring back what was there. */
export async function demoWithUndo(demo: Demo): Promise<void> {
  await startDemo(demo);
  deck.say('The demo world is open. What was here before was cleared.', undo);
}
