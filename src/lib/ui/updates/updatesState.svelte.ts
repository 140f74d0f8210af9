import { z } from 'zod';
import { slugOf } from '$lib/core/article/slug.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { MediaProblem } from '$lib/core/narration/narration.ts';
import { largestPicture } from '$lib/core/model/item.ts';
import type { Network } from '$lib/core/model/network.ts';
import { newUpdateDraft, type Asked, type UpdateDraft } from '$lib/core/updates/draft.ts';
import type { Hashtag } from '$lib/core/updates/hashtags.ts';
import { LINK_TAG_PATTERN, tagLink } from '$lib/core/updates/linkTags.ts';
import type { UpdateSource } from '$lib/core/updates/source.ts';
import type { Version } from '$lib/core/updates/version.ts';
import { db } from '$lib/data/db.ts';
import { getItem } from '$lib/data/items.ts';
import { readKey } from '$lib/data/keys.ts';
import { readSetting, saveSetting } from '$lib/data/settings.ts';
import { UpdateNetwork } from '$lib/places/network.ts';
import { bringClip } from '$lib/work/ownMedia.ts';
import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
import { readUpdateSource } from '$lib/work/updateSource.ts';
import type { Proposals, TagLists } from '$lib/workers/updates.worker.ts';
import { updatesWorker } from '$lib/workers/updates.ts';
import { ShownPictures, type PictureWish } from './shownPictures.svelte.ts';

const tagListsSchema = z
  .object({ own: z.array(z.string()), banned: z.array(z.string()) })
  .catch({ own: [], banned: [] });

/** One item in the updates view: what is made of it for each network. */
export class Updates {
  item = $state.raw<Item | null>(null);
  source = $state.raw<UpdateSource | null>(null);
  draft = $state<UpdateDraft | null>(null);
  networks = $state.raw<Network[]>([]);
  proposals = $state.raw<Proposals | null>(null);
  versions = $state.raw<Version[]>([]);
  pattern = $state(LINK_TAG_PATTERN);
  isMissing = $state(false);
  /** Proposed, by network. */
  hashtags = $state.raw<ReadonlyMap<string, Hashtag[]>>(new Map());
  tagLists = $state<TagLists>({ own: [], banned: [] });
  #turn = 0;

  /** The files that are seen beside the texts. */
  pictures = new ShownPictures('');
  /** The picture of the item, or null. */
  readonly picture = $derived(this.item && largestPicture(this.item.pictures));
  /** What stands on a card: the user's words, else the most telling sentence. */
  readonly quotation = $derived(this.draft?.card.text ?? this.proposals?.telling ?? '');
  readonly alt = $derived(
    this.draft?.alt ?? (this.draft?.shown === 'card' ? this.quotation : (this.item?.title ?? ''))
  );
  /** Networks that the update goes to. */
  readonly chosen = $derived(
    this.networks.filter(
      (n) => n.hasKey && (this.draft?.to ? this.draft.to.includes(n.id) : n.isUsual)
    )
  );

  async open(id: string): Promise<void> {
    const item = await getItem(id);
    if (!item) {
      this.isMissing = true;
      return;
    }
    const [networks, kept, pattern, lists] = await Promise.all([
      db.networks.toArray(),
      db.updates.get(id),
      readSetting('linkTags', z.string().catch(LINK_TAG_PATTERN)),
      readSetting('hashtags', tagListsSchema)
    ]);
    this.pattern = pattern;
    this.tagLists = lists;
    this.networks = networks.sort((a, b) => (a.linked < b.linked ? -1 : 1));
    this.pictures = new ShownPictures(id);
    this.draft = kept ?? newUpdateDraft(id, new Date().toISOString());
    this.item = item;
    if (this.draft.clip) await this.pictures.show(this.draft.clip.id);
    this.source = await readUpdateSource(item);
    await runTask(`Reading “${item.title}” for updates`, async () => {
      this.proposals = this.source && (await updatesWorker().propose(this.source));
    });
    this.#propose();
    await this.readHashtags();
  }

  /** Takes the first proposals where nothing was asked yet. */
  #propose(): void {
    const { draft, proposals } = this;
    if (!draft || !proposals) return;
    const poll = proposals.polls[0];
    const quiz = proposals.quiz[0];
    draft.poll ??= poll
      ? {
          question: poll.question,
          options: poll.options.map((text) => ({ text, right: false })),
          why: ''
        }
      : null;
    draft.quiz ??= quiz
      ? { question: quiz.question, options: [...quiz.options], why: quiz.why }
      : null;
  }

  async readHashtags(): Promise<void> {
    const terms = this.proposals?.terms ?? [];
    const lists = $state.snapshot(this.tagLists) as TagLists;
    const found = new Map<string, Hashtag[]>();
    for (const network of this.networks) {
      if (network.limits.hashtags === 0) continue;
      const names = [...lists.own.map((t) => t.replace(/^#/, '')), ...terms].map((t) =>
        t.replaceAll(' ', '').toLowerCase()
      );
      const { value } = await attempt(async () =>
        new UpdateNetwork(network, await readKey(network.id)).tagCounts(names)
      );
      const uses = value ?? new Map<string, number>();
      found.set(network.id, await updatesWorker().hashtags(terms, network.limits, uses, lists));
    }
    this.hashtags = found;
  }

  /** Keeps the user's lists of hashtags and proposes anew by them. */
  async setTagLists(change: Partial<TagLists>): Promise<void> {
    this.tagLists = { ...this.tagLists, ...change };
    await saveSetting('hashtags', $state.snapshot(this.tagLists));
    await this.readHashtags();
  }

  /** The address that an update at a network leads to. */
  linkFor(network: Network): { url: string; isPatternWrong: boolean } {
    const { source, draft } = this;
    const { url, problems } = tagLink(source?.link ?? '', this.pattern, {
      place: { name: network.title, kind: 'network' },
      item: { slug: slugOf(source?.title ?? ''), kind: source?.kind ?? 'post' },
      update: { kind: draft?.form ?? 'text' }
    });
    return { url, isPatternWrong: problems.some((p) => p.kind !== 'empty-field') };
  }

  /** Makes all versions anew, in the order of the networks. */
  async make(): Promise<Version[]> {
    const { source, draft, networks } = this;
    if (!source || !draft) return [];
    const turn = ++this.#turn;
    const wish = this.#wish();
    const places = await Promise.all(
      networks.map(async ({ id, limits, ...network }) => ({
        ...{ id, limits },
        link: this.linkFor({ id, limits, ...network }).url,
        hashtags: (this.hashtags.get(id) ?? []).map((t) => t.tag),
        picture:
          limits.picture === 'none' ? null : await this.pictures.make(wish, limits.pictureShape)
      }))
    );
    const made = await updatesWorker().versions(
      source,
      $state.snapshot(draft) as UpdateDraft,
      places,
      new Date().toISOString()
    );
    if (turn === this.#turn) this.versions = made;
    return made;
  }

  #wish(): PictureWish {
    const { draft, picture, quotation, alt, item } = this;
    if (draft?.shown === 'card')
      return {
        alt,
        card: { text: quotation, by: item?.author ?? '', style: $state.snapshot(draft.card.style) }
      };
    const subject = draft ? $state.snapshot(draft.subject) : { x: 0.5, y: 0.5 };
    return { alt, ...(picture && { cut: { url: picture.url, subject } }) };
  }

  /** Takes a clip of the user's own. @returns why it cannot be taken, or null */
  async bringClip(file: File): Promise<MediaProblem | null> {
    const { draft } = this;
    const { id, problem } = await bringClip(file);
    if (problem || !draft) return problem;
    const seconds = (await db.media.get(id))?.seconds ?? 0;
    const type = file.type.split(';')[0] ?? '';
    draft.clip = { id, name: file.name, type, seconds, bytes: file.size };
    await this.pictures.show(id);
    return null;
  }

  async save(): Promise<void> {
    if (!this.draft) return;
    const changed = new Date().toISOString();
    await db.updates.put({ ...($state.snapshot(this.draft) as UpdateDraft), changed });
    await saveSetting('linkTags', this.pattern);
  }

  /** What the networks have for their own, with an empty place for those that have nothing yet. */
  own(id: string): UpdateDraft['own'][string] {
    return this.draft?.own[id] ?? { text: null, hashtags: null };
  }

  setOwn(id: string, change: Partial<UpdateDraft['own'][string]>): void {
    if (this.draft) this.draft.own[id] = { ...this.own(id), ...change };
  }

  /** Networks whose own text a change of the common one leaves as it is. */
  readonly untouched = $derived(this.networks.filter((n) => this.own(n.id).text !== null));

  ask(form: 'poll' | 'quiz', asked: Asked): void {
    if (this.draft) this.draft[form] = structuredClone(asked);
  }

  choose(id: string, isOn: boolean): void {
    if (!this.draft) return;
    const now = this.chosen.map((n) => n.id).filter((n) => n !== id);
    this.draft.to = isOn ? [...now, id] : now;
  }
}
