import { allNetworks } from '$lib/data/networks.ts';
import { allPlaces, removePlaceKey } from '$lib/data/places.ts';
import { note } from '$lib/data/journal.ts';
import { forgetAllKeys, setPassphrase } from '$lib/data/keys.ts';
import { unlockKeys } from '$lib/data/keyOfKeys.ts';
import { readMailbox, removeMailbox } from '$lib/data/mailbox.ts';
import { removeNetworkKey } from '$lib/data/networks.ts';
import { deliverPending } from '$lib/delivery/deliverEntry.ts';

/** Unlocks the keys; what waited for them goes on. @returns whether it was the passphrase */
export async function unlock(passphrase: string): Promise<boolean> {
  const isRight = await unlockKeys(passphrase);
  if (isRight) void deliverPending();
  return isRight;
}

/** Sets the passphrase of the keys, or takes it away where it is empty. @throws PlaceError */
export async function changePassphrase(passphrase: string): Promise<void> {
  await setPassphrase(passphrase);
  await note({ what: passphrase ? 'passphrase-set' : 'passphrase-removed' });
}

/** Forgets all keys, where nobody knows the passphrase any more. The places stay connected, read only. */
export async function forgetKeys(): Promise<void> {
  await forgetAllKeys();
  for (const { id, hasKey } of await allPlaces()) if (hasKey) await removePlaceKey(id);
  for (const { id, hasKey } of await allNetworks()) if (hasKey) await removeNetworkKey(id);
  if (await readMailbox()) await removeMailbox();
  await note({ what: 'keys-forgotten' });
}
