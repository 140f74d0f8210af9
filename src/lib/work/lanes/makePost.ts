import { asToday } from '$lib/core/article/template/template.ts';
import { htmlText } from '$lib/core/text/html.ts';
import type { Lane, LaneTarget } from '$lib/core/lanes/lane.ts';
import { layoutFor } from '$lib/core/lanes/layoutFor.ts';
import type { Made } from '$lib/core/lanes/runner.ts';
import type { Item } from '$lib/core/model/item.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { lastTemplate } from '$lib/data/desk.ts';
import { getBody } from '$lib/data/items.ts';
import { getLayout } from '$lib/data/layouts.ts';
import { getPlace } from '$lib/data/places.ts';
import {
  chaptersOf,
  extractText,
  findForeignText,
  findingsOf,
  makePost,
  talkSourceOf,
  toPayload,
  weighed
} from '$lib/make/post.ts';
import { composeWorker } from '$lib/workers/compose.ts';
import { lanesTalkWorker } from '$lib/workers/talk.ts';
import { readDetails } from '../details.ts';

/**
 * The post that a lane makes of a video, as the desk would lay it out without being touched.
 * @throws PlaceError
 */
export async function makePostForLane(
  lane: Lane,
  video: Item,
  target: LaneTarget,
  signal: AbortSignal
): Promise<Made> {
  const [blog, channel, body] = await Promise.all([
    getPlace(target.placeId),
    getPlace(video.placeId),
    getBody(video.id)
  ]);
  if (!blog)
    throw new PlaceError({ kind: 'not-found', detail: 'The blog is not connected any more.' });
  const details = await readDetails(video, signal);
  const worker = lanesTalkWorker();
  const talk = talkSourceOf({ video, details });
  const read = talk && (await worker.read(talk, video.duration ?? 0));
  const chapters = chaptersOf(null, details, read?.proposed);
  const layout = layoutFor(lane.make, video);
  const kept = (layout ? await getLayout(layout) : undefined)?.template;
  const template = asToday(kept ?? (await lastTemplate(video.placeId)));
  const { title } = video;
  const extracted =
    talk && read
      ? await extractText(worker, talk, { title, length: template.length, chapters, pictures: [] })
      : null;
  const source = { video, channel, blog, description: htmlText(body) || video.summary, details };
  const { key, made, post } = await makePost(composeWorker(), {
    ...source,
    extracted,
    chapters,
    template: {
      ...template,
      ...(target.categories.length > 0 && { categories: target.categories }),
      ...(target.tags.length > 0 && { tags: target.tags })
    },
    edited: null,
    now: new Date().toISOString()
  });
  const foreign = await findForeignText(worker, { made, edited: null }, details);
  return {
    key,
    payload: toPayload(post, { status: target.status, on: '' }),
    findings: weighed([...findingsOf(post, source), ...foreign]),
    transfer: null
  };
}
