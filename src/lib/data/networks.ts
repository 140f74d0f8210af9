import { networkSchema, type Network } from '$lib/core/model/network.ts';
import { db } from './db.ts';
import { forgetKey, saveKey, sealKey } from './keys.ts';
import { patchRow } from './patchRow.ts';

export const getNetwork = (id: string): Promise<Network | undefined> => db.networks.get(id);
export const allNetworks = (): Promise<Network[]> => db.networks.toArray();

export const addNetwork = (network: Network): Promise<unknown> =>
  db.networks.put(networkSchema.parse(network));

/** Changes some fields of a network; one that was disconnected meanwhile stays away. */
export const patchNetwork = (id: string, patch: Partial<Network>): Promise<void> =>
  patchRow(db.networks, networkSchema, id, patch);

/** Stores a key and what came with it; a network that was disconnected meanwhile keeps none. */
export async function saveNetworkKey(
  id: string,
  key: string,
  patch: Partial<Network>
): Promise<void> {
  const sealed = await sealKey(key);
  await db.transaction('rw', [db.networks, db.keys], async () => {
    if (!(await db.networks.get(id))) return;
    await saveKey(id, sealed);
    await patchNetwork(id, { ...patch, hasKey: true });
  });
}

export const removeNetworkKey = (id: string): Promise<void> =>
  db.transaction('rw', [db.networks, db.keys], async () => {
    await forgetKey(id);
    await patchNetwork(id, { hasKey: false, keyEnds: null, problem: null });
  });

export async function removeNetwork(id: string): Promise<void> {
  await db.transaction('rw', [db.networks, db.keys], async () => {
    await forgetKey(id);
    await db.networks.delete(id);
  });
}
