import type { Finding } from '$lib/core/article/review/checks.ts';
import { asToday, type Template } from '$lib/core/article/template/template.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place } from '$lib/core/model/place.ts';
import { htmlText } from '$lib/core/text/html.ts';
import { lastTemplate } from '$lib/data/desk.ts';
import { getBody } from '$lib/data/items.ts';
import { getPlace } from '$lib/data/places.ts';
import type { Work } from '$lib/core/model/rows.ts';
import { makingOf, type NewMaking } from '$lib/make/making.ts';
import {
  chaptersOf,
  extractText,
  findForeignText,
  findingsOf,
  makePost,
  talkSourceOf,
  type MadePost,
  type TalkWorker
} from '$lib/make/post.ts';
import { composeWorker } from '$lib/workers/compose.ts';
import { readDetails } from './details.ts';

/** A post as it would be made of a video now. */
export interface LaidOutPost extends MadePost {
  making: NewMaking;
  findings: Finding[];
}

/**
 * Makes the post of a video as the desk would, from what its channel says of it now.
 * @param options.template null takes the layout of the channel's last post
 * @param options.work what was done by hand on the desk, its edited text apart
 * @throws PlaceError
 */
export async function layOutPost(
  video: Item,
  blog: Place,
  worker: TalkWorker,
  signal: AbortSignal,
  {
    template: given = null,
    work = null,
    categories = [],
    tags = []
  }: {
    template?: Template | null;
    work?: Work | null;
    /** In place of those of the layout, where there are any. */
    categories?: readonly string[];
    tags?: readonly string[];
  } = {}
): Promise<LaidOutPost> {
  const [channel, body] = await Promise.all([getPlace(video.placeId), getBody(video.id)]);
  const details = await readDetails(video, signal);
  const talk = talkSourceOf({ video, details }, work?.tidy);
  const read = talk && (await worker.read(talk, video.duration ?? 0));
  signal.throwIfAborted();
  const chapters = chaptersOf(work?.chapters ?? null, details, read?.proposed);
  const layout = asToday(given ?? (await lastTemplate(video.placeId)));
  const template = {
    ...layout,
    ...(categories.length > 0 && { categories: [...categories] }),
    ...(tags.length > 0 && { tags: [...tags] })
  };
  const extracted =
    talk && read
      ? await extractText(worker, talk, {
          title: video.title,
          length: template.length,
          chapters,
          pictures: work?.pictures ?? [],
          choices: work?.choices ?? []
        })
      : null;
  signal.throwIfAborted();
  const source = { video, channel, blog, description: htmlText(body) || video.summary, details };
  const now = new Date().toISOString();
  const result = await makePost(composeWorker(), {
    ...source,
    extracted,
    chapters,
    template,
    edited: null,
    now
  });
  const { key, made, post } = result;
  const foreign = await findForeignText(worker, { made, edited: null }, details);
  return {
    ...result,
    making: makingOf({ key, video, details, made, template }, now),
    findings: [...findingsOf(post, source), ...foreign]
  };
}
