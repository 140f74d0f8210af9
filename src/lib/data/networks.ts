import { networkSchema, type Network } from '$lib/core/model/network.ts';
import { db } from './db.ts';
import { forgetKey } from './keys.ts';

export const saveNetwork = (network: Network): Promise<unknown> =>
  db.networks.put(networkSchema.parse(network));

export async function removeNetwork(id: string): Promise<void> {
  await db.transaction('rw', [db.networks, db.keys], async () => {
    await forgetKey(id);
    await db.networks.delete(id);
  });
}
