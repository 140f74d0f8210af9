import { proposePairs } from '$lib/core/twins/likeness/propose.ts';
import { readUnpaired } from '$lib/data/unpaired.ts';

/** By id, of both halves of each sure pair that nothing ties yet: the title of the other half. Heavy: runs in a worker. */
export async function surePairs(): Promise<ReadonlyMap<string, string>> {
  const { videos, posts, refused } = await readUnpaired();
  const titles = new Map([...videos, ...posts].map(({ item }) => [item.id, item.title]));
  const others = new Map<string, string>();
  for (const { video, post, isSure } of proposePairs(videos, posts, { refused })) {
    if (!isSure) continue;
    others.set(video, titles.get(post) ?? '');
    others.set(post, titles.get(video) ?? '');
  }
  return others;
}
