import { slugOf } from '$lib/core/article/template/slug.ts';
import type { MakeFinding } from '$lib/core/delivery/outbox.ts';
import type { UpdatePayload } from '$lib/core/delivery/payload.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Network } from '$lib/core/model/network.ts';
import type { Form, UpdateDraft } from '$lib/core/updates/draft.ts';
import { tagLink } from '$lib/core/updates/linkTags.ts';
import type { UpdateSource } from '$lib/core/updates/source.ts';
import type { Version, VersionPlace, VersionProblem } from '$lib/core/updates/version.ts';

/** A network with what goes there beside the text. */
export interface UpdateTarget {
  network: Network;
  /** Proposed for it, with their signs. */
  hashtags: readonly string[];
  picture: VersionPlace['picture'];
}

export interface UpdateInput {
  source: UpdateSource;
  draft: UpdateDraft;
  targets: readonly UpdateTarget[];
  /** Of the tags that links get. */
  pattern: string;
  /** ISO 8601. */
  now: string;
}

/** The part of the worker for updates that is needed here. */
export interface VersionWorker {
  versions(
    source: UpdateSource,
    draft: UpdateDraft,
    places: VersionPlace[],
    now: string
  ): Version[] | Promise<Version[]>;
}

/** What goes to each of some networks, in their order. Keeps nothing. */
export async function makeVersions(
  worker: VersionWorker,
  { source, draft, targets, pattern, now }: UpdateInput
): Promise<Version[]> {
  const places = targets.map(({ network, hashtags, picture }) => ({
    id: network.id,
    limits: network.limits,
    link: linkFor(source, draft.form, network, pattern).url,
    hashtags: [...hashtags],
    picture
  }));
  return worker.versions(source, draft, places, now);
}

/** The address that an update at a network leads to, with the user's own tags. */
export function linkFor(
  source: Pick<UpdateSource, 'link' | 'title' | 'kind'>,
  form: Form,
  network: Pick<Network, 'title'>,
  pattern: string
): { url: string; isPatternWrong: boolean } {
  const { url, problems } = tagLink(source.link, pattern, {
    place: { name: network.title, kind: 'network' },
    item: { slug: slugOf(source.title), kind: source.kind },
    update: { kind: form }
  });
  return { url, isPatternWrong: problems.some((p) => p.kind !== 'empty-field') };
}

/** Problems of a version as a lane weighs them. */
export const weighedUpdate = (problems: readonly VersionProblem[]): MakeFinding[] =>
  problems.map((finding) => ({ of: 'update', level: 'wrong', finding: { ...finding } }));

/**
 * The key of an item's update at a network: one of each form, the same on every machine.
 * @param part of a thread, from 1 on
 */
export const updateKey = (
  item: Pick<Item, 'url' | 'nativeId'>,
  form: Form,
  network: Pick<Network, 'actor'>,
  part = 1
): string =>
  placementKey(
    item.url || item.nativeId,
    part === 1 ? `update/${form}` : `update/${form}/${part}`,
    network.actor
  );

/** A version as what is published: one update, or the parts of a thread. */
export function partsOf(item: Item, network: Network, { payload, more }: Version): UpdatePayload[] {
  const of = more.length + 1;
  if (of === 1) return [payload];
  return [payload.text, ...more].map((text, i) => ({
    ...payload,
    text,
    title: `${text.slice(0, 60)} (${i + 1}/${of})`,
    part: {
      number: i + 1,
      of,
      after: i === 0 ? '' : updateKey(item, payload.form, network, i)
    },
    // What goes with the text goes with the first part.
    ...(i > 0 && { hashtags: [], picture: null, clip: null, button: null, hasTitle: false })
  }));
}
