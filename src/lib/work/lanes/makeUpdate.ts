import { slugOf } from '$lib/core/article/slug.ts';
import type { Made } from '$lib/core/lanes/drive.ts';
import type { Lane, LaneTarget } from '$lib/core/lanes/lane.ts';
import { largestPicture, type Item } from '$lib/core/model/item.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { newUpdateDraft } from '$lib/core/updates/draft.ts';
import { LINK_TAG_PATTERN, tagLink } from '$lib/core/updates/linkTags.ts';
import { db } from '$lib/data/db.ts';
import { readSetting } from '$lib/data/settings.ts';
import { updatesWorker } from '$lib/workers/updates.ts';
import { z } from 'zod';
import { updateKey } from '../tell.ts';
import { readUpdateSource } from '../updateSource.ts';

/**
 * The short text that a lane tells of an item at a network, as Updates would propose it.
 * @throws PlaceError
 */
export async function makeUpdate(lane: Lane, item: Item, target: LaneTarget): Promise<Made> {
  const network = await db.networks.get(target.placeId);
  if (!network)
    throw new PlaceError({ kind: 'not-found', detail: 'The network is not linked any more.' });
  const source = await readUpdateSource(item);
  const worker = updatesWorker();
  const { terms } = await worker.propose(source);
  const pattern = await readSetting('linkTags', z.string().catch(LINK_TAG_PATTERN));
  const { url } = tagLink(source.link, pattern, {
    place: { name: network.title, kind: 'network' },
    item: { slug: slugOf(source.title), kind: source.kind },
    update: { kind: 'text' }
  });
  const picture = largestPicture(item.pictures);
  const lists = { own: target.tags, banned: [] };
  const tags = await worker.hashtags(terms, network.limits, new Map(), lists);
  const [version] = await worker.versions(
    source,
    { ...newUpdateDraft(item.id, new Date().toISOString()), manner: lane.make.manner },
    [
      {
        ...{ id: network.id, limits: network.limits, link: url },
        hashtags: network.limits.hashtags > 0 ? tags.map((t) => t.tag) : [],
        picture: picture && { url: picture.url, alt: item.title }
      }
    ],
    new Date().toISOString()
  );
  if (!version) throw new PlaceError({ kind: 'refused', detail: 'Nothing could be made of it.' });
  return {
    key: updateKey(item, 'text', network),
    payload: version.payload,
    complaints: version.problems.length
  };
}
