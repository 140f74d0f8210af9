import type { Item } from '$lib/core/model/item.ts';
import { proposePairs } from '$lib/core/twins/likeness/propose.ts';
import { readUnpaired } from '$lib/data/unpaired.ts';

/**
 * By id, of both halves of each sure pair that nothing ties yet: the other half. What were made of one of them would be
 * there twice. Heavy: runs in a worker.
 */
export async function surePairs(): Promise<ReadonlyMap<string, Item>> {
  const { videos, posts, refused } = await readUnpaired();
  const items = new Map([...videos, ...posts].map(({ item }) => [item.id, item]));
  const others = new Map<string, Item>();
  for (const { video, post, isSure } of proposePairs(videos, posts, { refused })) {
    if (isSure) others.set(video, items.get(post)!).set(post, items.get(video)!);
  }
  return others;
}
