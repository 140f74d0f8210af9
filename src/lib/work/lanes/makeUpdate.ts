import { z } from 'zod';
import type { Lane, LaneTarget } from '$lib/core/lanes/lane.ts';
import type { Made } from '$lib/core/lanes/runner.ts';
import { largestPicture, type Item } from '$lib/core/model/item.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { newUpdateDraft, type Form, type UpdateDraft } from '$lib/core/updates/draft.ts';
import { LINK_TAG_PATTERN } from '$lib/core/updates/linkTags.ts';
import type { NoQuizReason } from '$lib/core/updates/quiz.ts';
import { getNetwork } from '$lib/data/networks.ts';
import { readSetting } from '$lib/data/settings.ts';
import { makeVersions, updateKey, weighedUpdate } from '$lib/make/update.ts';
import type { Proposals } from '$lib/workers/updatesApi.ts';
import { updatesWorker } from '$lib/workers/updates.ts';
import { readUpdateSource } from '../updateSource.ts';

/**
 * The update that a lane publishes of an item at a network, as Updates would propose it.
 * @throws PlaceError
 */
export async function makeUpdateForLane(lane: Lane, item: Item, target: LaneTarget): Promise<Made> {
  const network = await getNetwork(target.placeId);
  if (!network)
    throw new PlaceError({ kind: 'not-found', detail: 'The network is not connected any more.' });
  const source = await readUpdateSource(item);
  const worker = updatesWorker();
  const { form, manner } = lane.make;
  const proposals = await worker.propose(source);
  const pattern = await readSetting('linkTags', z.string().catch(LINK_TAG_PATTERN));
  const lists = { own: target.tags, banned: [] };
  const tags = await worker.hashtags(proposals.terms, network.limits, new Map(), lists);
  const picture = largestPicture(item.pictures);
  const now = new Date().toISOString();
  const draft = { ...newUpdateDraft(item.id, now), form, manner, ...askedOf(proposals, form) };
  const [version] = await makeVersions(worker, {
    source,
    draft,
    pattern,
    now,
    targets: [
      {
        network,
        hashtags: network.limits.hashtags > 0 ? tags.map((t) => t.tag) : [],
        picture: picture && { url: picture.url, alt: item.title }
      }
    ]
  });
  if (!version) throw new PlaceError({ kind: 'refused', detail: 'Nothing could be made of it.' });
  return {
    key: updateKey(item, form, network),
    payload: version.payload,
    findings: weighedUpdate(version.problems),
    transfer: null
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
    if (!question) throw none(noQuiz ?? 'nothing-stated');
    return { quiz: { question: question.question, options: question.options, why: question.why } };
  }
  return {};
}
