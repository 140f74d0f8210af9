import type { Place } from '$lib/core/model/place.ts';
import { readPlaces } from '$lib/work/read.ts';
import { attempt } from '$lib/work/tasks.svelte.ts';
import { deck } from './deck.svelte.ts';
import { problemMessage } from './messages.ts';

/** Reads one place or all, and says what came of it. */
export async function readNow(place?: Place): Promise<void> {
  const { problem } = await attempt(() => readPlaces(place));
  if (problem) deck.say(`${problemMessage(problem).what} ${problemMessage(problem).todo}`);
  else deck.say(place ? `${place.title} is read.` : 'All places are read.');
}
