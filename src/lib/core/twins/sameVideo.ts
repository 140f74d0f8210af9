import { canonicalAddress } from '../feeds/address.ts';
import type { Item } from '../model/item.ts';

/**
 * Videos that stand in several places at one address, such as a channel and a playlist of it, once
 * each: as the place has it that was connected first.
 * @param order places, the one connected first in front
 */
export function withoutCopies(videos: readonly Item[], order: readonly string[]): Item[] {
  const places = new Set(videos.map((video) => video.placeId));
  if (places.size < 2) return [...videos];
  const rank = new Map(order.map((id, i) => [id, i]));
  const of = (video: Item) => rank.get(video.placeId) ?? order.length;
  const first = new Map<string, Item>();
  for (const video of videos) {
    const address = canonicalAddress(video.url);
    const known = first.get(address);
    if (!known || of(video) < of(known)) first.set(address, video);
  }
  return videos.filter((video) => first.get(canonicalAddress(video.url)) === video);
}
