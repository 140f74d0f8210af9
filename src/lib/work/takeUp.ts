import { db } from '$lib/data/db.ts';
import { openHandOffs } from '$lib/data/handOffs.ts';
import { unsettledTransfers } from '$lib/data/transfers.ts';
import { workOffOutbox } from './post.ts';

/** Takes up what was left by a tab that is gone. What makes and sends videos is loaded only when there are any. */
export async function takeUpWork(): Promise<void> {
  void workOffOutbox();
  if ((await openHandOffs()).length > 0) await (await import('./handOff.ts')).lookForAnswers();
  if ((await unsettledTransfers()).length > 0)
    await (await import('./transfer.ts')).workOffTransfers();
  if ((await db.renders.filter((r) => r.state === 'running').count()) > 0)
    await (await import('./narrate.ts')).takeUpRenders();
}
