import { keyLock, onLockChange } from '$lib/data/keyOfKeys.ts';
import { live } from './live.svelte.ts';

/** How the keys of this browser are kept, as it changes in this tab or another. */
export function liveKeyLock(): { readonly value: 'open' | 'locked' | 'unlocked' | undefined } {
  let turn = $state(0);
  $effect(() => onLockChange(() => turn++));
  return live(() => {
    void turn;
    return keyLock;
  });
}
