import type { Twin } from '$lib/core/model/twin.ts';
import { restore, setAside } from '$lib/data/decisions.ts';
import { note } from '$lib/data/journal.ts';
import { deck } from '../deck.svelte.ts';
import { plural } from '../messages.ts';

/** Sets twins aside, or restores them where all of them are set aside, and offers to undo that. */
export async function toggleAside(some: readonly Twin[]): Promise<void> {
  if (some.length === 0) return;
  const isBack = some.every((twin) => twin.standing === 'set-aside');
  await putAll(some, isBack);
  deck.say(`${plural(some.length, 'twin', 'twins')} ${isBack ? 'restored' : 'set aside'}.`, {
    label: 'Undo',
    run: () => putAll(some, !isBack)
  });
}

async function putAll(some: readonly Twin[], isBack: boolean): Promise<void> {
  for (const twin of some) {
    const half = twin.video ?? twin.post;
    if (!half) continue;
    if (isBack) await restore(half.id);
    else await setAside(half.id, new Date().toISOString());
    await note({ what: isBack ? 'restored' : 'set-aside', itemId: half.id, title: half.title });
  }
}
