import { z } from 'zod';
import type { Item } from '$lib/core/model/item.ts';
import type { MediaProblem } from '$lib/core/narration/narration.ts';
import { largestPicture } from '$lib/core/model/item.ts';
import type { Network } from '$lib/core/model/network.ts';
import { newUpdateDraft, type Asked, type UpdateDraft } from '$lib/core/updates/draft.ts';
import type { Hashtag } from '$lib/core/updates/hashtags.ts';
import { LINK_TAG_PATTERN } from '$lib/core/updates/linkTags.ts';
import type { UpdateSource } from '$lib/core/updates/source.ts';
import type { Version } from '$lib/core/updates/version.ts';
import { getMedia } from '$lib/data/media.ts';
import { allNetworks } from '$lib/data/networks.ts';
import { readUpdateDraft, updateUpdateDraft } from '$lib/data/updates.ts';
import { linkFor, makeVersions } from '$lib/make/update.ts';
import { getItem } from '$lib/data/items.ts';
import { readKey } from '$lib/data/keys.ts';
import { readSetting, saveSetting } from '$lib/data/settings.ts';
import { UpdateNetwork } from '$lib/places/network.ts';
import { importClip } from '$lib/work/ownMedia.ts';
import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
import { readUpdateSource } from '$lib/work/updateSource.ts';
import type { Proposals, TagLists } from '$lib/workers/updatesApi.ts';
import { updatesWorker } from '$lib/workers/updates.ts';
import { Autosave } from '../autosave.svelte.ts';
import { soon } from '../soon.svelte.ts';
import { ShownPictures, type PictureWish } from './shownPictures.svelte.ts';

const tagListsSchema = z
  .object({ own: z.array(z.string()), banned: z.array(z.string()) })
  .catch({ own: [], banned: [] });

/** All that can be changed of an update, field by field. */
type UpdateFields = Omit<UpdateDraft, 'changed'>;

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
  #hashtagsTurn = 0;
  readonly autosave = new Autosave<UpdateFields>({
    name: () => (this.item ? `updates/${this.item.id}` : ''),
    read: () => {
      if (!this.draft) return null;
      const { changed: _changed, ...fields } = $state.snapshot(this.draft) as UpdateDraft;
      return fields;
    },
    take: (fields) => {
      if (this.draft) Object.assign(this.draft, structuredClone(fields));
    },
    stored: async () => (await readUpdateDraft(this.item?.id ?? '')) ?? null,
    update: (merge) =>
      updateUpdateDraft(this.item?.id ?? '', (stored) => ({
        ...merge(stored),
        changed: new Date().toISOString()
      }))
  });

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
      allNetworks(),
      readUpdateDraft(id),
      readSetting('linkTags', z.string().catch(LINK_TAG_PATTERN)),
      readSetting('hashtags', tagListsSchema)
    ]);
    this.pattern = pattern;
    this.tagLists = lists;
    this.networks = networks.sort((a, b) => (a.linked < b.linked ? -1 : 1));
    this.pictures = new ShownPictures(id);
    this.draft = kept ?? newUpdateDraft(id, new Date().toISOString());
    this.item = item;
    this.autosave.begin();
    if (this.draft.clip) await this.pictures.show(this.draft.clip.id);
    this.source = await readUpdateSource(item);
    await runTask(`Reading “${item.title}” for updates`, async () => {
      this.proposals = this.source && (await updatesWorker().propose(this.source));
    });
    this.#propose();
    this.autosave.rebase();
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

  /** Saves and makes anew what depends on what is changed; to be called within an effect. */
  follow(): void {
    this.autosave.follow(() => this.draft !== null);
    soon(
      80,
      () => {
        void [this.source, this.networks, this.hashtags];
        return JSON.stringify([this.draft, this.pattern, this.networks.map((n) => n.id)]);
      },
      () => this.make()
    );
  }

  async readHashtags(): Promise<void> {
    const turn = ++this.#hashtagsTurn;
    const terms = this.proposals?.terms ?? [];
    const lists = $state.snapshot(this.tagLists) as TagLists;
    const names = [...lists.own.map((t) => t.replace(/^#/, '')), ...terms].map((t) =>
      t.replaceAll(' ', '').toLowerCase()
    );
    const found = await Promise.all(
      this.networks
        .filter((network) => network.limits.hashtags !== 0)
        .map(async (network): Promise<[string, Hashtag[]]> => {
          const { value } = await attempt(async () =>
            new UpdateNetwork(network, await readKey(network.id)).tagCounts(names)
          );
          const uses = value ?? new Map<string, number>();
          return [network.id, await updatesWorker().hashtags(terms, network.limits, uses, lists)];
        })
    );
    // An earlier reading that a slow network kept must not undo a later one.
    if (turn === this.#hashtagsTurn) this.hashtags = new Map(found);
  }

  /** Keeps the user's lists of hashtags and proposes anew by them. */
  async setTagLists(change: Partial<TagLists>): Promise<void> {
    this.tagLists = { ...this.tagLists, ...change };
    await saveSetting('hashtags', $state.snapshot(this.tagLists));
    await this.readHashtags();
  }

  /** The address that an update at a network leads to. */
  linkFor(network: Network): { url: string; isPatternWrong: boolean } {
    const { source, draft, pattern } = this;
    const from = source ?? { link: '', title: '', kind: 'post' as const };
    return linkFor(from, draft?.form ?? 'text', network, pattern);
  }

  /** Makes all versions anew, in the order of the networks. */
  async make(): Promise<Version[]> {
    const { source, draft, networks } = this;
    if (!source || !draft) return [];
    const turn = ++this.#turn;
    const wish = this.#wish();
    const targets = await Promise.all(
      networks.map(async (network) => ({
        network,
        hashtags: (this.hashtags.get(network.id) ?? []).map((t) => t.tag),
        picture:
          network.limits.picture === 'none'
            ? null
            : await this.pictures.make(wish, network.limits.pictureShape)
      }))
    );
    const made = await makeVersions(updatesWorker(), {
      source,
      draft: $state.snapshot(draft) as UpdateDraft,
      targets,
      pattern: this.pattern,
      now: new Date().toISOString()
    });
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
  async importClip(file: File): Promise<MediaProblem | null> {
    const { draft } = this;
    const { id, problem } = await importClip(file);
    if (problem || !draft) return problem;
    const seconds = (await getMedia(id))?.seconds ?? 0;
    const type = file.type.split(';')[0] ?? '';
    draft.clip = { id, name: file.name, type, seconds, bytes: file.size };
    await this.pictures.show(id);
    return null;
  }

  async setPattern(pattern: string): Promise<void> {
    this.pattern = pattern;
    await saveSetting('linkTags', pattern);
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
    this.autosave.change(() => {
      if (this.draft) this.draft[form] = structuredClone(asked);
    });
  }

  choose(id: string, isOn: boolean): void {
    if (!this.draft) return;
    const now = this.chosen.map((n) => n.id).filter((n) => n !== id);
    this.draft.to = isOn ? [...now, id] : now;
  }
}
