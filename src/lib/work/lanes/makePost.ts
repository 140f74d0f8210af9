import { checkPost, needsCredit } from '$lib/core/article/checks.ts';
import { compose } from '$lib/core/article/compose.ts';
import { asToday } from '$lib/core/article/template.ts';
import { DROP_NOISE } from '$lib/core/captions/tidy.ts';
import { htmlText } from '$lib/core/feeds/text.ts';
import type { Made } from '$lib/core/lanes/drive.ts';
import type { Lane, LaneTarget } from '$lib/core/lanes/lane.ts';
import { layoutFor } from '$lib/core/lanes/layoutFor.ts';
import type { Item } from '$lib/core/model/item.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { db } from '$lib/data/db.ts';
import { getBody } from '$lib/data/items.ts';
import { lanesTalkWorker } from '$lib/workers/talk.ts';
import { readDetails } from '../details.ts';
import { postKey, toPayload } from '../post.ts';

/**
 * The post that a lane makes of a video, as the desk would lay it out without being touched.
 * @throws PlaceError
 */
export async function makePost(
  lane: Lane,
  video: Item,
  target: LaneTarget,
  signal: AbortSignal
): Promise<Made> {
  const [blog, channel, kept] = await Promise.all([
    db.places.get(target.placeId),
    db.places.get(video.placeId),
    db.templates.get(video.placeId)
  ]);
  if (!blog)
    throw new PlaceError({ kind: 'not-found', detail: 'The blog is not linked any more.' });
  const details = await readDetails(video, signal);
  const worker = lanesTalkWorker();
  const options = { tidy: DROP_NOISE, language: video.language, duration: video.duration ?? 0 };
  const talk = details.cues.length > 0 ? await worker.read(details.cues, options) : null;
  const chapters = details.chapters.length > 0 ? details.chapters : (talk?.proposed ?? []);
  const layout = layoutFor(lane.make, video);
  const chosen = layout ? await db.layouts.get(layout) : undefined;
  const template = asToday(chosen?.template ?? kept?.template);
  const drawn = talk
    ? await worker.draw({
        ...{ title: video.title, length: template.length, pictures: [] },
        chapters: chapters.map(({ start, title }) => ({ start, title }))
      })
    : null;
  const key = postKey(video, blog);
  const laidOut = {
    ...template,
    ...(target.categories.length > 0 && { categories: target.categories }),
    ...(target.tags.length > 0 && { tags: target.tags })
  };
  const post = compose(laidOut, {
    ...{ video, chapters, key, now: new Date().toISOString() },
    description: htmlText(await getBody(video.id)) || video.summary,
    ...{ paragraphs: drawn?.paragraphs ?? [], article: drawn?.article ?? null },
    seekTo: details.seekTo,
    channel: { title: channel?.title ?? '', url: channel?.url ?? '' },
    blog: { title: blog.title, url: blog.url }
  });
  const findings = checkPost(post, { needsCredit: needsCredit(video, channel?.author ?? '') });
  return {
    key,
    payload: toPayload(post, { status: target.status, on: '' }),
    complaints: findings.length
  };
}
