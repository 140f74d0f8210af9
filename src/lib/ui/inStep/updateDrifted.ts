import type { Twin } from '$lib/core/model/twin.ts';
import { deck } from '$lib/ui/deck.svelte.ts';
import { plural } from '$lib/ui/messages.ts';
import { runTask } from '$lib/work/tasks.svelte.ts';
import { updateMany, type ManyUpdated } from '$lib/work/updateMany.ts';
import { talkWorker } from '$lib/workers/talk.ts';

/** Brings drifted twins up to date and says what came of it, with an undo of the whole. */
export async function updateDrifted(twins: readonly Twin[]): Promise<void> {
  const done = await runTask('Updating what drifted', (signal, report) =>
    updateMany(twins, talkWorker(), signal, report)
  );
  deck.say(summaryOf(done), { label: 'Undo', run: done.undo });
}

function summaryOf({ updated, waiting, same, left, failed }: ManyUpdated): string {
  const said = [`${plural(updated - waiting, 'item', 'items')} updated.`];
  if (waiting > 0) said.push(`${waiting} will be sent again in a moment.`);
  if (same > 0) said.push(`${plural(same, 'item needs', 'items need')} no change.`);
  if (left.length > 0)
    said.push(`${plural(left.length, 'item needs', 'items need')} your decision: open each.`);
  if (failed.length > 0) said.push(`${failed.length} failed; the journal says why.`);
  return said.join(' ');
}
