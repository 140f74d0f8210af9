import { slugOf } from '$lib/core/article/slug.ts';
import type { Made } from '$lib/core/lanes/drive.ts';
import type { Lane, LaneTarget } from '$lib/core/lanes/lane.ts';
import { largestPicture, type Item } from '$lib/core/model/item.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { newUpdateDraft, type Form, type UpdateDraft } from '$lib/core/updates/draft.ts';
import { LINK_TAG_PATTERN, tagLink } from '$lib/core/updates/linkTags.ts';
import type { NoQuizReason } from '$lib/core/updates/quiz.ts';
import { db } from '$lib/data/db.ts';
import { readSetting } from '$lib/data/settings.ts';
import type { Proposals } from '$lib/workers/updates.worker.ts';
import { updatesWorker } from '$lib/workers/updates.ts';
import { z } from 'zod';
import { updateKey } from '../tell.ts';
import { readUpdateSource } from '../updateSource.ts';

/**
 * The update that a lane tells of an item at a network, as Updates would propose it.
 * @throws PlaceError
 */
export async function makeUpdate(lane: Lane, item: Item, target: LaneTarget): Promise<Made> {
  const network = await db.networks.get(target.placeId);
  if (!network)
    throw new PlaceError({ kind: 'not-found', detail: 'The network is not linked any more.' });
  const source = await readUpdateSource(item);
  const worker = updatesWorker();
  const { form, manner } = lane.make;
  const proposals = await worker.propose(source);
  const { terms } = proposals;
  const pattern = await readSetting('linkTags', z.string().catch(LINK_TAG_PATTERN));
  const { url } = tagLink(source.link, pattern, {
    place: { name: network.title, kind: 'network' },
    item: { slug: slugOf(source.title), kind: source.kind },
    update: { kind: form }
  });
  const picture = largestPicture(item.pictures);
  const lists = { own: target.tags, banned: [] };
  const tags = await worker.hashtags(terms, network.limits, new Map(), lists);
  const [version] = await worker.versions(
    source,
    {
      ...newUpdateDraft(item.id, new Date().toISOString()),
      ...{ form, manner, ...askedOf(proposals, form) }
    },
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
    key: updateKey(item, form, network),
    payload: version.payload,
    complaints: version.problems.length
  };
}

/** The first question that an item gives. @throws PlaceError `nothing-to-make` where it gives none */
function askedOf({ polls, quiz, noQuiz }: Proposals, form: Form): Partial<UpdateDraft> {
  const none = (detail: NoQuizReason | 'no-poll') =>
    new PlaceError({ kind: 'nothing-to-make', detail });
  const [poll] = polls;
  const [question] = quiz;
  if (form === 'poll') {
    if (!poll) throw none('no-poll');
    const options = poll.options.map((text) => ({ text, right: false }));
    return { poll: { question: poll.question, options, why: '' } };
  }
  if (form === 'quiz') {
    if (!question) throw none(noQuiz ?? 'nothing-told');
    return { quiz: { question: question.question, options: question.options, why: question.why } };
  }
  return {};
}
