import type { Target } from '$lib/core/delivery/deliver.ts';
import type { Network } from '$lib/core/model/network.ts';
import type { Place } from '$lib/core/model/place.ts';
import { getNetwork } from '$lib/data/networks.ts';
import { getPlace } from '$lib/data/places.ts';
import { readKey } from '$lib/data/keys.ts';
import { MAILBOX_ID, readMailbox } from '$lib/data/mailbox.ts';
import { ownSecret } from '$lib/data/secret.ts';
import { keptFile } from '$lib/data/media.ts';
import type { ByHand } from './byHand.ts';
import { FeedPlace } from './feed.ts';
import type { MicropubBlog } from './micropub.ts';
import type { PlaceAdapter } from './place.ts';
import type { VideoChannel } from './videoChannel.ts';
import { readAddress } from './wire.ts';

/**
 * The adapter for a place as it is connected.
 * @param key to be tried, instead of the one that is stored
 */
export async function adapterFor(place: Place, key?: string): Promise<PlaceAdapter> {
  return (await publisherFor(place, key)) ?? new FeedPlace(place);
}

/** The adapter for a place that takes what we make, or null. Loaded when first used. */
export async function publisherFor(
  place: Place | null | undefined,
  key?: string
): Promise<MicropubBlog | VideoChannel | null> {
  if (!place?.micropub) return null;
  return place.kind === 'blog' ? blogFor(place, key) : channelFor(place, key);
}

/** Files that this page has sent, by network: a retry need not send them again. */
const sentFiles = new Map<string, Map<string, string>>();
function sentTo(id: string): Map<string, string> {
  const sent = sentFiles.get(id) ?? new Map<string, string>();
  sentFiles.set(id, sent);
  return sent;
}

/** What places what is in the outbox, at a place or a network; null where it is not linked any more. */
export async function targetFor(id: string): Promise<{ title: string; target: Target } | null> {
  const network = await getNetwork(id);
  if (network?.isByHand) {
    const target = await byHand(network);
    return target && { title: network.title, target };
  }
  if (network) {
    const { UpdateNetwork } = await import('./network.ts');
    return {
      title: network.title,
      target: new UpdateNetwork(network, await readKey(id), keptFile, sentTo(id))
    };
  }
  const place = await getPlace(id);
  const target = await publisherFor(place);
  return place && target ? { title: place.title, target } : null;
}

/** What hands updates over that are posted by hand; null without a mailbox. */
export async function byHand(network: Network): Promise<ByHand | null> {
  const mailbox = await readMailbox();
  if (!mailbox) return null;
  const { ByHand } = await import('./byHand.ts');
  return new ByHand(network, mailbox, {
    key: await readKey(MAILBOX_ID),
    secret: await ownSecret(),
    origin: location.origin,
    fileOf: anyFile,
    now: () => new Date()
  });
}

/** A kept file, or one at an address; null where it cannot be had. */
async function anyFile(url: string): Promise<Blob | null> {
  const { isKept } = await import('./network.ts');
  if (isKept(url)) return keptFile(url);
  try {
    const { bytes, contentType } = await readAddress(url);
    return new Blob([bytes as Uint8Array<ArrayBuffer>], { type: contentType.split(';')[0] });
  } catch {
    return null;
  }
}

export async function blogFor(
  place: Place | null | undefined,
  key?: string
): Promise<MicropubBlog | null> {
  if (place?.kind !== 'blog' || !place.micropub) return null;
  const { MicropubBlog } = await import('./micropub.ts');
  return new MicropubBlog(place, key ?? (await readKey(place.id)));
}

export async function channelFor(
  place: Place | null | undefined,
  key?: string
): Promise<VideoChannel | null> {
  if (place?.kind !== 'channel' || !place.micropub) return null;
  const { VideoChannel } = await import('./videoChannel.ts');
  return new VideoChannel(place, key ?? (await readKey(place.id)));
}
