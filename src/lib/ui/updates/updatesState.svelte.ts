import { z } from 'zod';
import { slugOf } from '$lib/core/article/slug.ts';
import type { Item } from '$lib/core/model/item.ts';
import { largestPicture } from '$lib/core/model/item.ts';
import type { Network } from '$lib/core/model/network.ts';
import { newUpdateDraft, type Asked, type UpdateDraft } from '$lib/core/updates/draft.ts';
import type { Hashtag } from '$lib/core/updates/hashtags.ts';
import { LINK_TAG_PATTERN, tagLink } from '$lib/core/updates/linkTags.ts';
import type { UpdateSource } from '$lib/core/updates/source.ts';
import type { Version } from '$lib/core/updates/version.ts';
import { db } from '$lib/data/db.ts';
import { getBody, getItem } from '$lib/data/items.ts';
import { readKey } from '$lib/data/keys.ts';
import { readSetting, saveSetting } from '$lib/data/settings.ts';
import { UpdateNetwork } from '$lib/places/network.ts';
import { readDetails } from '$lib/work/details.ts';
import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
import type { Proposals, TagLists } from '$lib/workers/updates.worker.ts';
import { updatesWorker } from '$lib/workers/updates.ts';

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

  readonly picture = $derived.by(() => {
    const { item, draft } = this;
    const picture = item && largestPicture(item.pictures);
    return picture && item ? { url: picture.url, alt: draft?.alt ?? item.title } : null;
  });
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
    this.draft = kept ?? newUpdateDraft(id, new Date().toISOString());
    this.item = item;
    this.source = await this.#read(item);
    await runTask(`Reading “${item.title}” for updates`, async () => {
      this.proposals = this.source && (await updatesWorker().propose(this.source));
    });
    this.#propose();
    await this.readHashtags();
  }

  async #read(item: Item): Promise<UpdateSource> {
    const kind = item.kind === 'video' ? 'video' : 'post';
    const worker = updatesWorker();
    const html = await getBody(item.id);
    let blocks = await worker.blocksOfHtml(html || `<p>${item.summary}</p>`);
    if (kind === 'video') {
      const kept = await db.details.get(item.id);
      const { value } = kept
        ? { value: kept }
        : await attempt(() =>
            runTask(`Reading the captions of “${item.title}”`, (signal) =>
              readDetails(item, signal)
            )
          );
      const said = value ? await worker.blocksOfTalk(value.cues, item.title, item.language) : [];
      if (said.length > 0) blocks = said;
    }
    const language =
      item.language || (await worker.languageOf([item.title, ...blocks.map((b) => b.text)]));
    return { title: item.title, kind, link: item.url, language, blocks };
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
    const places = networks.map((network) => ({
      id: network.id,
      limits: network.limits,
      link: this.linkFor(network).url,
      hashtags: (this.hashtags.get(network.id) ?? []).map((t) => t.tag)
    }));
    const made = await updatesWorker().versions(
      source,
      $state.snapshot(draft) as UpdateDraft,
      places,
      this.picture,
      new Date().toISOString()
    );
    if (turn === this.#turn) this.versions = made;
    return made;
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
