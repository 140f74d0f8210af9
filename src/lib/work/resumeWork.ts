import { archiveFolder } from '$lib/data/archive/folder.ts';
import { keyLock } from '$lib/data/keyOfKeys.ts';
import { mayPagesChange } from '$lib/data/listPages.ts';
import { openHandOffs } from '$lib/data/outbox.ts';
import { runningRenders } from '$lib/data/runningRenders.ts';
import { pendingTransfers, transfersToEmbed } from '$lib/data/transfers.ts';
import { deliverPending } from '$lib/delivery/deliverEntry.ts';

/**
 * Resumes what was left by a tab that is gone, and what had to wait. What makes and sends videos is
 * loaded only when there are any.
 */
export async function resumeWork(): Promise<void> {
  if ((await keyLock()) === 'locked') return;
  void deliverPending();
  if (await archiveFolder()) await (await import('./archive/dailyCopy.ts')).copyDaily();
  if (await mayPagesChange()) await (await import('./listPages.ts')).keepListPages();
  if ((await openHandOffs()).length > 0) await (await import('./handOff.ts')).lookForAnswers();
  if ((await pendingTransfers()).length > 0)
    await (await import('$lib/delivery/transfers.ts')).sendPending();
  if ((await transfersToEmbed()).length > 0)
    await (await import('$lib/delivery/changes.ts')).embedOpenedVideos();
  if ((await runningRenders()).length > 0) await (await import('./narrate.ts')).resumeRenders();
}
