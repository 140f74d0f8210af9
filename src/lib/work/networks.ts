import { readActor, type ActorFacts } from '$lib/core/feeds/actor.ts';
import { addressFromInput } from '$lib/core/feeds/address.ts';
import { placeId } from '$lib/core/model/ids.ts';
import type { Network } from '$lib/core/model/network.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { updateLimitsSchema, type UpdateLimits } from '$lib/core/updates/placeLimits.ts';
import { note } from '$lib/data/journal.ts';
import { readKey } from '$lib/data/keys.ts';
import {
  addNetwork,
  patchNetwork,
  removeNetwork,
  removeNetworkKey,
  saveNetworkKey
} from '$lib/data/networks.ts';
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
export async function connectNetwork(facts: ActorFacts, signal?: AbortSignal): Promise<Network> {
  const now = new Date().toISOString();
  const told = await new UpdateNetwork(facts, '').fetchLimits(signal);
  const network: Network = {
    ...facts,
    ...told,
    id: placeId(facts.actor),
    hasKey: false,
    keyEnds: null,
    isUsual: true,
    isByHand: false,
    problem: null,
    origins: [new URL(facts.actor).origin],
    linked: now,
    checked: now
  };
  await addNetwork(network);
  const { id, title, url } = network;
  await note({ what: 'connected', placeId: id, title, url });
  return network;
}

/** A place that needs posting by hand: what goes there is handed to the user. */
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
    id: placeId(`by-hand:${url || title}`),
    actor: `by-hand:${url || title}`,
    url,
    title,
    about: '',
    outbox: '',
    limitsUrl: '',
    tagCounts: '',
    uploadMedia: '',
    allowance: null,
    limits: updateLimitsSchema.parse({ text, picture, hashtags, clip: BY_HAND_CLIP }),
    tokenEndpoint: '',
    keyEnds: null,
    isByHand: true,
    hasKey: true,
    isUsual,
    origins: [],
    problem: null,
    linked: now,
    checked: now
  };
  await addNetwork(network);
  await note({ what: 'connected', placeId: network.id, title, url });
  return network;
}

/** What a place takes is not known to us, so nothing of a clip is refused here. */
const BY_HAND_CLIP = {
  seconds: 600,
  bytes: 200_000_000,
  types: ['video/webm', 'video/mp4']
};

/** Asks again what a network takes and how much of its allowance is left. @throws PlaceError */
export async function checkNetwork(network: Network, signal?: AbortSignal): Promise<void> {
  try {
    const found = await fetchFacts(network, await readKey(network.id), signal);
    await patchNetwork(network.id, found);
  } catch (error) {
    if (error instanceof PlaceError)
      await patchNetwork(network.id, { checked: new Date().toISOString(), problem: error.problem });
    throw error;
  }
}

/**
 * Takes a key for a network. It is tried before it is stored: a key that the network refuses changes
 * nothing.
 * @throws PlaceError
 */
export async function setNetworkKey(
  network: Network,
  key: string,
  signal?: AbortSignal
): Promise<void> {
  const { id, title } = network;
  await saveNetworkKey(id, key.trim(), await fetchFacts(network, key.trim(), signal));
  await note({ what: 'key-saved', placeId: id, title });
}

async function fetchFacts(
  network: Network,
  key: string,
  signal?: AbortSignal
): Promise<Partial<Network>> {
  const adapter = new UpdateNetwork(network, key);
  const { limits, allowance } = await adapter.fetchLimits(signal);
  const keyEnds = await adapter.keyEnds(signal);
  return { limits, allowance, keyEnds, checked: new Date().toISOString(), problem: null };
}

export async function forgetNetworkKey({ id, title }: Network): Promise<void> {
  await removeNetworkKey(id);
  await note({ what: 'key-removed', placeId: id, title });
}

/** Takes a network out of this application; what was published there stays there. */
export async function disconnectNetwork({ id, title, url }: Network): Promise<void> {
  await removeNetwork(id);
  await note({ what: 'disconnected', placeId: id, title, url });
}
