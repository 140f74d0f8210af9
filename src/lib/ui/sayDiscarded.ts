import { undoDiscard } from '$lib/work/discard.ts';
import { deck } from './deck.svelte.ts';

/**
 * Says that something was thrown away, with an undo for as long as the message is shown; the journal
 * offers it afterwards.
 * @param trash name under which it can be brought back
 */
export function sayDiscarded(line: string, trash: string, title: string): void {
  deck.say(line, {
    label: 'Undo',
    run: async () => {
      const isBack = await undoDiscard(trash, title);
      deck.say(isBack ? `“${title}” is back as it was.` : 'It can no longer be brought back.');
    }
  });
}
