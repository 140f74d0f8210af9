import type { OutboxEntry } from '$lib/core/lanes/outbox.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Network } from '$lib/core/model/network.ts';
import type { Form } from '$lib/core/updates/draft.ts';
import type { Version } from '$lib/core/updates/version.ts';
import { db } from '$lib/data/db.ts';
import { readKey } from '$lib/data/keys.ts';
import { wantPlaced } from '$lib/data/outbox.ts';
import { UpdateNetwork, type Results } from '$lib/places/network.ts';
import { workOn } from './post.ts';

/** The key of an item's update at a network: one of each form, the same on every machine. */
export const updateKey = (item: Item, form: Form, network: Network): string =>
  placementKey(item.url || item.nativeId, `update/${form}`, network.actor);

/**
 * Writes updates into the outbox, one for each network, and sends them when their time has come.
 * @param at milliseconds since 1970
 */
export async function tell(
  item: Item,
  versions: readonly { network: Network; version: Version }[],
  at: number
): Promise<void> {
  for (const { network, version } of versions) {
    const { payload } = version;
    const key = updateKey(item, payload.form, network);
    const fields = { key, itemId: item.id, placeId: network.id, payload };
    await wantPlaced(fields, Date.now(), at);
    void workOn(key);
  }
}

/** What has come of a poll or quiz so far; null where it is gone. @throws PlaceError */
export async function readResults(entry: OutboxEntry): Promise<Results | null> {
  const network = await db.networks.get(entry.placeId);
  if (!network) return null;
  return new UpdateNetwork(network, await readKey(network.id)).results(entry.key);
}
