import type { Finding } from '$lib/core/article/review/checks.ts';
import { withChoice, type SentenceChoice } from '$lib/core/article/edit/choices.ts';
import type { ComposedPost, Material } from '$lib/core/article/template/compose.ts';
import { tidyDescription } from '$lib/core/article/template/description.ts';
import type { GivenPicture } from '$lib/core/article/extract/givenPicture.ts';
import { fieldsOf, listFields } from '$lib/core/article/template/fields.ts';
import { asToday, defaultTemplate, type Template } from '$lib/core/article/template/template.ts';
import type { Cue } from '$lib/core/captions/cue.ts';
import { DROP_NOISE, type TidyOptions } from '$lib/core/captions/tidyOptions.ts';
import { renameHeading } from '$lib/core/article/edit/renameHeading.ts';
import type { EditedChapter } from '$lib/core/chapters/chapter.ts';
import { keepByHand, renameChapter } from '$lib/core/chapters/edit.ts';
import { htmlText } from '$lib/core/text/html.ts';
import type { Item } from '$lib/core/model/item.ts';
import { canPublish, type Place, type Problem } from '$lib/core/model/place.ts';
import { getDetails } from '$lib/data/details.ts';
import { lastTemplate, readDesk, storedDesk, updateDesk, type DeskFields } from '$lib/data/desk.ts';
import { getBody, getItem } from '$lib/data/items.ts';
import { getPlace, placesOfKind } from '$lib/data/places.ts';
import type { Details, Draft, Work } from '$lib/core/model/rows.ts';
import { readSetting, saveSetting } from '$lib/data/settings.ts';
import { makingOf } from '$lib/make/making.ts';
import {
  chaptersOf,
  extractText,
  findForeignText,
  findingsOf,
  makePost,
  materialOf,
  talkSourceOf,
  toPayload,
  type MadePost,
  type PostInput
} from '$lib/make/post.ts';
import { discard } from '$lib/work/discard.ts';
import { dropCaptions, importCaptions, readDetails } from '$lib/work/details.ts';
import { publishPost } from '$lib/work/publishPost.ts';
import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
import { composeWorker } from '$lib/workers/compose.ts';
import { talkWorker } from '$lib/workers/talk.ts';
import type { Extracted, ReadTalk, Reviewed, TalkSource } from '$lib/workers/talkApi.ts';
import { untrack } from 'svelte';
import { z } from 'zod';
import { Autosave } from '../autosave.svelte.ts';
import { soon } from '../soon.svelte.ts';

const admiredSchema = z.array(z.string()).catch([]);

/** Seconds of the video that something points at. */
export interface Pointed {
  start: number;
  end: number;
  /** Whether it was pointed at in the text or in the transcript. */
  by: 'text' | 'transcript';
}

const twoFrames = () =>
  new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));

/** All that the desk knows of one video and the post it becomes. */
export class Desk {
  video = $state.raw<Item | null>(null);
  channel = $state.raw<Place | null>(null);
  blogs = $state.raw<Place[]>([]);
  details = $state.raw<Details | null>(null);
  description = $state('');
  problem = $state<Problem | null>(null);
  template = $state<Template>(structuredClone(defaultTemplate));
  status = $state<Draft['status']>('draft');
  on = $state('');
  blogId = $state('');
  isLoaded = $state(false);

  /** What is said, as the worker read it; null while it reads, or where nothing is said. */
  talk = $state.raw<ReadTalk | null>(null);
  extracted = $state.raw<Extracted | null>(null);
  reviewed = $state.raw<Reviewed | null>(null);
  tidy = $state<TidyOptions>({ ...DROP_NOISE });
  /** Chapters once touched by hand; null takes the channel's, or else those proposed. */
  ownChapters = $state.raw<EditedChapter[] | null>(null);
  pictures = $state<GivenPicture[]>([]);
  phrases = $state<string[]>([]);
  /** Sentences that are kept or dropped whatever they say. */
  choices = $state.raw<SentenceChoice[]>([]);
  /** Texts of pages the user admires, whose use of the phrases sets the range. */
  admired = $state<string[]>([]);
  edited = $state.raw<Work['edited']>(null);
  pointed = $state.raw<Pointed | null>(null);

  /** Text that does not come from the talk of this video; found when the text is looked through. */
  foreign = $state.raw<Finding[]>([]);

  /** Grows with every laying out of the post. */
  #turn = 0;

  /** Brings what is being written into `edited`; set by the editor while there is one. */
  settle: (() => void) | null = null;

  /** Puts other HTML in place of what is being written, as one step; set by the editor while there is one. */
  rewrite = $state.raw<((change: (html: string) => Promise<string>) => Promise<void>) | null>(null);

  readonly since: string = new Date().toISOString();
  readonly autosave = new Autosave<DeskFields>({
    name: () => (this.video ? `desk/${this.video.id}` : ''),
    read: () => this.#read(),
    take: (fields) => this.#take(fields),
    settle: () => this.settle?.(),
    stored: () => storedDesk(this.video?.id ?? ''),
    update: (merge) => updateDesk(this.video?.id ?? '', new Date().toISOString(), merge)
  });

  readonly blog = $derived(this.blogs.find((b) => b.id === this.blogId) ?? null);
  readonly isChannelsChapters = $derived(
    this.ownChapters === null && (this.details?.chapters.length ?? 0) > 0
  );
  readonly chapters: readonly EditedChapter[] = $derived(
    chaptersOf(this.ownChapters, this.details, this.talk?.proposed)
  );
  readonly talkSource: TalkSource | null = $derived(
    this.video &&
      talkSourceOf(
        { video: this.video, details: this.details },
        $state.snapshot(this.tidy) as TidyOptions
      )
  );
  readonly duration = $derived(
    Math.max(this.video?.duration ?? 0, this.talk?.sentences.at(-1)?.end ?? 0)
  );
  /** All that a post is made from; null while no video is on the desk. */
  readonly #input: PostInput | null = $derived(
    this.video && {
      video: this.video,
      channel: this.channel,
      blog: this.blog,
      description: this.description,
      details: this.details,
      extracted: this.extracted,
      chapters: this.chapters,
      template: $state.snapshot(this.template) as Template,
      edited: this.edited,
      now: this.since
    }
  );
  readonly material: Material | null = $derived(this.#input && materialOf(this.#input));
  readonly key = $derived(this.material?.key ?? '');
  result = $state.raw<MadePost | null>(null);
  /** The post as the layout makes it. */
  readonly made: ComposedPost | null = $derived(this.result?.made ?? null);
  /** The post as it goes out: with the text as edited, where it was. */
  readonly post: ComposedPost | null = $derived(this.result?.post ?? null);
  readonly findings: Finding[] = $derived(
    this.post && this.video && this.isLoaded
      ? [...this.foreign, ...findingsOf(this.post, { video: this.video, channel: this.channel })]
      : []
  );
  readonly fields = $derived.by(() => {
    if (!this.material) return [];
    const words = this.talk?.guidance.talkWords ?? 0;
    return listFields(
      fieldsOf({ ...this.material, description: tidyDescription(this.description), words })
    );
  });

  /** Puts a video on the desk: as it was left, else laid out as the last post of its channel. */
  async open(id: string): Promise<void> {
    const video = await getItem(id);
    if (!video) return;
    const [channel, blogs, { draft, work }, kept, body, admired] = await Promise.all([
      getPlace(video.placeId),
      placesOfKind('blog'),
      readDesk(id),
      lastTemplate(video.placeId),
      getBody(id),
      readSetting('admired', admiredSchema)
    ]);
    this.channel = channel;
    this.blogs = blogs;
    this.description = htmlText(body) || video.summary;
    this.template = asToday(draft?.template ?? kept);
    this.status = draft?.status ?? 'draft';
    this.on = draft?.on ?? '';
    this.blogId = draft?.placeId || blogs.find(canPublish)?.id || blogs[0]?.id || '';
    this.ownChapters = work?.chapters ?? null;
    this.tidy = { ...DROP_NOISE, ...work?.tidy };
    this.pictures = work?.pictures ?? [];
    this.phrases = work?.phrases ?? [];
    this.choices = work?.choices ?? [];
    this.edited = work?.edited ?? null;
    this.admired = admired;
    this.details = await getDetails(id);
    this.video = video;
    this.autosave.begin();
    await this.readAgain();
    await this.compose();
    // The transcript is shown first, then the text in its editor, so that neither holds the page up.
    await twoFrames();
    this.isLoaded = true;
  }

  /** Saves and computes anew what depends on what is changed; to be called within an effect. */
  follow(): void {
    // From the first key on, also while the talk is still being read.
    this.autosave.follow(() => this.video !== null);
    $effect(() => {
      if (this.#input) void untrack(() => this.compose());
    });
    // The article follows its length, the chapters, the pictures and what is kept or dropped.
    soon(
      150,
      () => {
        void [this.template.length, this.chapters, JSON.stringify(this.pictures), this.choices];
        return this.isLoaded || null;
      },
      () => this.extract()
    );
    // What stands in the text is looked through once the writing pauses.
    soon(
      500,
      () => {
        void [this.post, JSON.stringify(this.phrases), JSON.stringify(this.admired)];
        return this.isLoaded || null;
      },
      () => this.review()
    );
  }

  /** Reads captions and chapters from the page of the video. */
  async readAgain(): Promise<void> {
    const { video } = this;
    if (!video) return;
    const done = await attempt(() =>
      runTask(`Reading the captions of “${video.title}”`, (signal) => readDetails(video, signal))
    );
    this.problem = done.problem;
    if (done.value) this.details = done.value;
    await this.readTalk();
  }

  /** From the captions to sentences, chapters and the article, in the worker. */
  async readTalk(): Promise<void> {
    const { video, talkSource } = this;
    if (!video || !talkSource) {
      this.talk = null;
      this.extracted = null;
      return;
    }
    await runTask(`Turning the talk of “${video.title}” into text`, async () => {
      this.talk = await talkWorker().read(talkSource, video.duration ?? 0);
    });
    await this.extract();
  }

  /** Lays the post out as it is now, in the worker. */
  async compose(): Promise<MadePost | null> {
    const input = this.#input;
    if (!input) return null;
    const turn = ++this.#turn;
    const done = await attempt(() => makePost(composeWorker(), input));
    // One that was asked for since is newer.
    if (turn === this.#turn) {
      this.result = done.value ?? this.result;
      if (done.problem) this.problem = done.problem;
      else if (this.problem?.kind === 'too-heavy') this.problem = null;
    }
    return done.value;
  }

  async extract(): Promise<void> {
    const { video, talkSource } = this;
    if (!video || !this.talk || !talkSource) return;
    this.extracted = await extractText(talkWorker(), talkSource, {
      title: video.title,
      length: this.template.length,
      chapters: this.chapters,
      pictures: $state.snapshot(this.pictures) as GivenPicture[],
      choices: this.choices
    });
  }

  /** The captions as they were mended, in lines that can be read. */
  async mendedCaptions(): Promise<Cue[]> {
    return this.talkSource ? talkWorker().captions(this.talkSource) : [];
  }

  /** Looks through the text as it stands, in the worker. */
  async review(): Promise<void> {
    const { post, result, edited, details } = this;
    if (!post || !result) return;
    this.foreign = await findForeignText(talkWorker(), { made: result.made, edited }, details);
    this.reviewed = await talkWorker().review({
      title: post.title,
      html: this.edited?.html ?? post.marked,
      phrases: $state.snapshot(this.phrases),
      admired: $state.snapshot(this.admired),
      subject: this.extracted?.article.subject ?? []
    });
  }

  /** Keeps or drops a sentence of the talk, or leaves it to the tool again. */
  choose(sentence: number, choice: SentenceChoice['choice'] | null): void {
    const said = this.talk?.sentences[sentence];
    if (!said) return;
    this.autosave.change(() => (this.choices = withChoice(this.choices, said, choice)));
  }

  setChapters(chapters: EditedChapter[] | null): void {
    this.autosave.change(() => (this.ownChapters = chapters));
  }

  /** Gives a chapter another title while it is typed; headings in an edited text follow. */
  renameChapter(index: number, title: string): void {
    const before = this.chapters[index]?.title ?? '';
    this.ownChapters = renameChapter(this.chapters, index, title);
    if (!this.edited) return;
    const { base, html } = this.edited;
    this.edited = {
      base: renameHeading(base, before, title),
      html: renameHeading(html, before, title)
    };
  }

  /** Proposals from the talk, beside what was made by hand. */
  proposeChapters(): void {
    this.setChapters(keepByHand(this.talk?.proposed ?? [], this.ownChapters ?? []));
  }

  async importCaptions(cues: Cue[]): Promise<void> {
    if (!this.video) return;
    this.details = await importCaptions(this.video.id, cues);
    this.problem = null;
    await this.readTalk();
  }

  async dropCaptions(): Promise<void> {
    if (!this.video) return;
    await dropCaptions(this.video.id);
    await this.readAgain();
  }

  /** Writes the post into the outbox as it is now. The desk is clear until something is changed. */
  async publish(): Promise<void> {
    this.settle?.();
    const made = await this.compose();
    const { video, blog, details } = this;
    if (!video || !made || !blog) return;
    const { post, key } = made;
    const payload = toPayload(post, { status: this.status, on: this.on });
    const request = { key, itemId: video.id, placeId: blog.id, payload };
    const draft = this.#draft(video.id);
    const of = { key, video, details, made: made.made, template: draft.template };
    await this.autosave.saveNow();
    await publishPost(request, draft, makingOf(of, new Date().toISOString()), video.placeId);
    this.autosave.markSaved();
  }

  #draft(id: string): Draft {
    return {
      id,
      template: $state.snapshot(this.template) as Template,
      status: this.status,
      on: this.on,
      placeId: this.blogId,
      since: this.since,
      changed: new Date().toISOString()
    };
  }

  saveAdmired(): Promise<unknown> {
    return saveSetting('admired', $state.snapshot(this.admired));
  }

  /** Throws away what was done by hand. @returns the name under which it can be brought back */
  async clear(): Promise<string> {
    if (!this.video) return '';
    const { id, placeId, title } = this.video;
    await this.autosave.saveNow();
    const trash = await discard({ what: 'discarded', title, itemId: id }, [
      ['drafts', id],
      ['work', id]
    ]);
    this.template = asToday(await lastTemplate(placeId));
    this.ownChapters = null;
    this.edited = null;
    this.pictures = [];
    this.phrases = [];
    this.choices = [];
    this.tidy = { ...DROP_NOISE };
    this.autosave.markSaved();
    return trash;
  }

  #read(): DeskFields | null {
    if (!this.video) return null;
    const { template, status, on, blogId, tidy, pictures, phrases } = this;
    return {
      ...($state.snapshot(template) as Template),
      status,
      on,
      placeId: blogId,
      chapters: this.ownChapters,
      tidy: $state.snapshot(tidy),
      pictures: $state.snapshot(pictures),
      phrases: $state.snapshot(phrases),
      choices: this.choices,
      edited: this.edited
    };
  }

  #take(fields: Partial<DeskFields>): void {
    const { status, on, placeId, chapters, tidy, pictures, phrases, choices, edited, ...template } =
      structuredClone(fields);
    if (Object.keys(template).length > 0) this.template = { ...this.template, ...template };
    if (status !== undefined) this.status = status;
    if (on !== undefined) this.on = on;
    if (placeId !== undefined) this.blogId = placeId;
    if (chapters !== undefined) this.ownChapters = chapters;
    if (tidy !== undefined) this.tidy = tidy;
    if (pictures !== undefined) this.pictures = pictures;
    if (phrases !== undefined) this.phrases = phrases;
    if (choices !== undefined) this.choices = choices;
    if (edited !== undefined) this.edited = edited;
  }
}
