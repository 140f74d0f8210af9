import { PlaceError } from '$lib/core/model/place.ts';
import { readKey } from '$lib/data/keys.ts';
import { allNetworks } from '$lib/data/networks.ts';
import { publishedUpdatesAt } from '$lib/data/publishedUpdates.ts';
import { recordFigures } from '$lib/data/reach.ts';
import { localZone } from '$lib/localZone.ts';
import { UpdateNetwork } from '$lib/places/network.ts';

/** Keeps what came of updates at every network: likes, shares, replies and votes. */
export async function readNetworkFigures(signal: AbortSignal): Promise<void> {
  for (const network of await allNetworks()) {
    const entries = network.isByHand ? [] : await publishedUpdatesAt(network.id);
    if (entries.length === 0) continue;
    try {
      const place = new UpdateNetwork(network, network.hasKey ? await readKey(network.id) : '');
      const figures = await place.figures(signal);
      const told = entries.flatMap((entry) => {
        const known = figures.get(entry.key);
        const published = new Date(entry.sentAt || entry.updated).toISOString();
        const { key: id, placeId } = entry;
        return known ? [{ id, placeId, kind: 'update' as const, published, figures: known }] : [];
      });
      await recordFigures(told, Date.now(), localZone());
    } catch (error) {
      signal.throwIfAborted();
      // A network tells of its own problems where something is sent to it.
      if (!(error instanceof PlaceError)) throw error;
    }
  }
}
