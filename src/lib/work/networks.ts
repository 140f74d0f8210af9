import { readActor, type ActorFacts } from '$lib/core/feeds/actor.ts';
import { addressFromInput } from '$lib/core/feeds/address.ts';
import { placeId } from '$lib/core/model/ids.ts';
import type { Network } from '$lib/core/model/network.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { updateLimitsSchema, type UpdateLimits } from '$lib/core/updates/placeLimits.ts';
import { note } from '$lib/data/journal.ts';
import { forgetKey, readKey, saveKey } from '$lib/data/keys.ts';
import { removeNetwork, saveNetwork } from '$lib/data/networks.ts';
import { UpdateNetwork } from '$lib/places/network.ts';
import { readAddress } from '$lib/places/wire.ts';
import { coreWorker } from '$lib/workers/core.ts';

/** The network behind an address: its page or its actor. @throws PlaceError */
export async function findNetwork(input: string, signal: AbortSignal): Promise<ActorFacts> {
  const address = addressFromInput(input);
  if (!address) throw new PlaceError({ kind: 'bad-address', url: input });
  const fetched = await readAddress(address, signal);
  const own = actorIn(fetched.bytes, fetched.url);
  if (own) return own;
  const examined = await coreWorker().examine(fetched);
  const named = examined.is === 'page' ? examined.page.actor : '';
  const actor = named ? await readAddress(named, signal) : null;
  const facts = actor && actorIn(actor.bytes, actor.url);
  if (!facts) throw new PlaceError({ kind: 'no-feed-found', url: fetched.url });
  return facts;
}

function actorIn(bytes: Uint8Array, url: string): ActorFacts | null {
  try {
    return readActor(JSON.parse(new TextDecoder().decode(bytes)), url);
  } catch {
    // A page is no JSON.
    return null;
  }
}

/** Links a network; what it takes is read at once. @throws PlaceError */
export async function linkNetwork(facts: ActorFacts, signal?: AbortSignal): Promise<Network> {
  const now = new Date().toISOString();
  const told = await new UpdateNetwork(facts, '').limits(signal);
  const network: Network = {
    ...facts,
    ...told,
    ...{
      id: placeId(facts.actor),
      hasKey: false,
      keyEnds: null,
      isUsual: true,
      isByHand: false,
      problem: null
    },
    ...{ origins: [new URL(facts.actor).origin], linked: now, checked: now }
  };
  await saveNetwork(network);
  const { id, title, url } = network;
  await note({ what: 'linked', placeId: id, title, url });
  return network;
}

/** A place that lets no program post: what goes there is handed to the user. */
export async function addByHand(
  fields: { title: string; url: string; isUsual: boolean } & Pick<
    UpdateLimits,
    'text' | 'picture' | 'hashtags'
  >
): Promise<Network> {
  const now = new Date().toISOString();
  const { text, picture, hashtags, title, isUsual } = fields;
  const url = addressFromInput(fields.url);
  if (!url) throw new PlaceError({ kind: 'bad-address', url: fields.url });
  const network: Network = {
    ...{ id: placeId(`by-hand:${url || title}`), actor: `by-hand:${url || title}`, url, title },
    ...{ about: '', outbox: '', limitsUrl: '', tagCounts: '', uploadMedia: '', allowance: null },
    limits: updateLimitsSchema.parse({ text, picture, hashtags, clip: BY_HAND_CLIP }),
    ...{
      tokenEndpoint: '',
      keyEnds: null,
      isByHand: true,
      hasKey: true,
      isUsual,
      origins: [],
      problem: null
    },
    ...{ linked: now, checked: now }
  };
  await saveNetwork(network);
  await note({ what: 'linked', placeId: network.id, title, url });
  return network;
}

/** What a place takes is not known to us, so nothing of a clip is refused here. */
const BY_HAND_CLIP = {
  ...{ seconds: 600, bytes: 200_000_000 },
  types: ['video/webm', 'video/mp4']
};

/** Asks again what a network takes and how much of its allowance is left. @throws PlaceError */
export async function checkNetwork(network: Network, signal?: AbortSignal): Promise<Network> {
  const checked = new Date().toISOString();
  try {
    const adapter = new UpdateNetwork(network, await readKey(network.id));
    const told = await adapter.limits(signal);
    const keyEnds = await adapter.keyEnds(signal);
    const known = { ...network, ...told, keyEnds, checked, problem: null };
    await saveNetwork(known);
    return known;
  } catch (error) {
    if (error instanceof PlaceError)
      await saveNetwork({ ...network, checked, problem: error.problem });
    throw error;
  }
}

/** Takes a key for a network, once the network accepts it. @throws PlaceError */
export async function giveNetworkKey(
  network: Network,
  key: string,
  signal?: AbortSignal
): Promise<Network> {
  await saveKey(network.id, key.trim());
  try {
    const known = await checkNetwork({ ...network, hasKey: true }, signal);
    await note({ what: 'key-given', placeId: network.id, title: network.title });
    return known;
  } catch (error) {
    await takeNetworkKey(network, false);
    throw error;
  }
}

export async function takeNetworkKey(network: Network, isNoted = true): Promise<void> {
  await forgetKey(network.id);
  await saveNetwork({ ...network, hasKey: false, keyEnds: null, problem: null });
  if (isNoted) await note({ what: 'key-removed', placeId: network.id, title: network.title });
}

/** Takes a network out of this application; what was told there stays there. */
export async function unlinkNetwork({ id, title, url }: Network): Promise<void> {
  await removeNetwork(id);
  await note({ what: 'unlinked', placeId: id, title, url });
}
