import type { Place } from '$lib/core/model/place.ts';
import { readKey } from '$lib/data/keys.ts';
import { FeedPlace } from './feed.ts';
import { MicropubBlog } from './micropub.ts';

/** The adapter for a place as it is linked. */
export async function adapterFor(place: Place): Promise<FeedPlace | MicropubBlog> {
  if (place.kind === 'blog' && place.micropub)
    return new MicropubBlog(place, await readKey(place.id));
  return new FeedPlace(place);
}
