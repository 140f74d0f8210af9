import { checkPost, needsCredit, type Finding } from '$lib/core/article/checks.ts';
import {
  compose,
  finishedHtml,
  type ComposedPost,
  type Material
} from '$lib/core/article/compose.ts';
import { tidyDescription } from '$lib/core/article/description.ts';
import type { GivenPicture } from '$lib/core/article/layOut.ts';
import { fieldsOf, listFields } from '$lib/core/article/fields.ts';
import { asToday, defaultTemplate, type Template } from '$lib/core/article/template.ts';
import type { Cue } from '$lib/core/captions/cue.ts';
import { DROP_NOISE, type TidyOptions } from '$lib/core/captions/tidy.ts';
import { keepByHand, type EditedChapter } from '$lib/core/chapters/edit.ts';
import { htmlText } from '$lib/core/feeds/text.ts';
import type { Item } from '$lib/core/model/item.ts';
import { canPublish, type Place, type Problem } from '$lib/core/model/place.ts';
import { db, type Details, type Draft, type Work } from '$lib/data/db.ts';
import { getBody, getItem } from '$lib/data/items.ts';
import { bringCaptions, dropCaptions, readDetails } from '$lib/work/details.ts';
import { postKey } from '$lib/work/post.ts';
import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
import { coreWorker } from '$lib/workers/core.ts';
import { talkWorker } from '$lib/workers/talk.ts';
import type { Drawn, ReadTalk, Reviewed } from '$lib/workers/talk.worker.ts';

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
  drawn = $state.raw<Drawn | null>(null);
  reviewed = $state.raw<Reviewed | null>(null);
  tidy = $state<TidyOptions>({ ...DROP_NOISE });
  /** Chapters once touched by hand; null takes the channel's, or else those proposed. */
  ownChapters = $state.raw<EditedChapter[] | null>(null);
  pictures = $state<GivenPicture[]>([]);
  phrases = $state<string[]>([]);
  /** Texts of pages the user admires, whose use of the phrases sets the range. */
  admired = $state<string[]>([]);
  edited = $state.raw<Work['edited']>(null);
  pointed = $state.raw<Pointed | null>(null);

  readonly since: string = new Date().toISOString();
  #savedDraft = '';
  #savedWork = '';

  readonly blog = $derived(this.blogs.find((b) => b.id === this.blogId) ?? null);
  readonly key = $derived(this.video && this.blog ? postKey(this.video, this.blog) : '');
  readonly isChannelsChapters = $derived(
    this.ownChapters === null && (this.details?.chapters.length ?? 0) > 0
  );
  readonly chapters: EditedChapter[] = $derived(
    this.ownChapters ??
      (this.details?.chapters.length ? this.details.chapters : (this.talk?.proposed ?? []))
  );
  readonly duration = $derived(
    Math.max(this.video?.duration ?? 0, this.talk?.sentences.at(-1)?.end ?? 0)
  );
  readonly material: Material | null = $derived.by(() => {
    if (!this.video) return null;
    return {
      video: this.video,
      description: this.description,
      paragraphs: this.drawn?.paragraphs ?? [],
      article: this.drawn?.article ?? null,
      chapters: this.chapters,
      seekTo: this.details?.seekTo ?? '',
      channel: { title: this.channel?.title ?? '', url: this.channel?.url ?? '' },
      blog: { title: this.blog?.title ?? '', url: this.blog?.url ?? '' },
      now: this.since,
      key: this.key
    };
  });
  /** The post as the layout makes it. */
  readonly made: ComposedPost | null = $derived(
    this.material && compose($state.snapshot(this.template) as Template, this.material)
  );
  /** The post as it stands: with the text as edited, where it was. */
  readonly post: ComposedPost | null = $derived.by(() => {
    const { made, edited, key } = this;
    return made && edited ? { ...made, html: finishedHtml(edited.html, key) } : made;
  });
  readonly needsCredit = $derived(
    this.video !== null && this.channel !== null && needsCredit(this.video, this.channel.author)
  );
  readonly findings: Finding[] = $derived(
    this.post && this.isLoaded ? checkPost(this.post, { needsCredit: this.needsCredit }) : []
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
    const [channel, places, draft, work, kept, body, admired] = await Promise.all([
      db.places.get(video.placeId),
      db.places.where({ kind: 'blog' }).toArray(),
      db.drafts.get(id),
      db.work.get(id),
      db.templates.get(video.placeId),
      getBody(id),
      db.settings.get('admired')
    ]);
    this.channel = channel ?? null;
    this.blogs = places;
    this.description = htmlText(body) || video.summary;
    this.template = asToday(draft?.template ?? kept?.template);
    this.status = draft?.status ?? 'draft';
    this.on = draft?.on ?? '';
    this.blogId = draft?.placeId || places.find(canPublish)?.id || places[0]?.id || '';
    this.ownChapters = work?.chapters ?? null;
    this.tidy = { ...DROP_NOISE, ...work?.tidy };
    this.pictures = work?.pictures ?? [];
    this.phrases = work?.phrases ?? [];
    this.edited = work?.edited ?? null;
    this.admired = Array.isArray(admired?.value) ? admired.value.map(String) : [];
    this.details = (await db.details.get(id)) ?? null;
    this.video = video;
    this.#savedDraft = this.#draftText();
    this.#savedWork = this.#workText();
    await this.readAgain();
    // The transcript is shown first, then the text in its editor, so that neither holds the page up.
    await twoFrames();
    this.isLoaded = true;
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
    const { video } = this;
    const cues = this.details?.cues ?? [];
    if (!video || cues.length === 0) {
      this.talk = null;
      this.drawn = null;
      return;
    }
    const options = {
      tidy: $state.snapshot(this.tidy),
      language: video.language,
      duration: video.duration ?? 0
    };
    await runTask(`Turning the talk of “${video.title}” into text`, async () => {
      this.talk = await talkWorker().read(cues, options);
    });
    await this.draw();
  }

  async draw(): Promise<void> {
    const { video } = this;
    if (!video || !this.talk) return;
    this.drawn = await talkWorker().draw({
      title: video.title,
      length: this.template.length,
      chapters: this.chapters.map(({ start, title }) => ({ start, title })),
      pictures: $state.snapshot(this.pictures)
    });
  }

  /** Looks through the text as it stands, in the worker. */
  async review(): Promise<void> {
    const { post } = this;
    if (!post) return;
    this.reviewed = await talkWorker().review({
      title: post.title,
      html: this.edited?.html ?? post.marked,
      phrases: $state.snapshot(this.phrases),
      admired: $state.snapshot(this.admired),
      subject: this.drawn?.article.subject ?? []
    });
  }

  setChapters(chapters: EditedChapter[] | null): void {
    this.ownChapters = chapters;
  }

  /** Proposals from the talk, beside what was made by hand. */
  proposeChapters(): void {
    this.ownChapters = keepByHand(this.talk?.proposed ?? [], this.ownChapters ?? []);
  }

  async bringCaptions(cues: Cue[]): Promise<void> {
    if (!this.video) return;
    this.details = await bringCaptions(this.video.id, cues);
    this.problem = null;
    await this.readTalk();
  }

  async dropCaptions(): Promise<void> {
    if (!this.video) return;
    await dropCaptions(this.video.id);
    await this.readAgain();
  }

  draft(): Draft {
    return {
      id: this.video?.id ?? '',
      template: $state.snapshot(this.template) as Template,
      status: this.status,
      on: this.on,
      placeId: this.blogId,
      since: this.since,
      changed: new Date().toISOString()
    };
  }

  /** Keeps the desk as it is, once something was changed on it. */
  async save(): Promise<void> {
    if (!this.video) return;
    const draft = this.#draftText();
    const work = this.#workText();
    if (draft === this.#savedDraft && work === this.#savedWork) return;
    const isWorkChanged = work !== this.#savedWork;
    this.#savedDraft = draft;
    this.#savedWork = work;
    if (isWorkChanged) await db.work.put(this.#work(this.video.id));
    const before = await db.drafts.get(this.video.id);
    await db.drafts.put({ ...this.draft(), since: before?.since ?? this.since });
    if (!before) await coreWorker().pairAgain();
  }

  saveAdmired(): Promise<unknown> {
    return db.settings.put({ name: 'admired', value: $state.snapshot(this.admired) });
  }

  async clear(): Promise<void> {
    if (!this.video) return;
    const { id, placeId } = this.video;
    await Promise.all([db.drafts.delete(id), db.work.delete(id)]);
    await coreWorker().pairAgain();
    this.template = asToday((await db.templates.get(placeId))?.template);
    this.ownChapters = null;
    this.edited = null;
    this.pictures = [];
    this.phrases = [];
    this.tidy = { ...DROP_NOISE };
    this.markPlaced();
  }

  /** What was placed lies at the blog now; the desk counts as clear until something is changed. */
  markPlaced(): void {
    this.#savedDraft = this.#draftText();
    this.#savedWork = this.#workText();
  }

  #work(id: string): Work {
    return {
      id,
      chapters: this.ownChapters,
      tidy: $state.snapshot(this.tidy),
      pictures: $state.snapshot(this.pictures),
      phrases: $state.snapshot(this.phrases),
      edited: this.edited
    };
  }

  #draftText(): string {
    return JSON.stringify([this.template, this.status, this.on, this.blogId]);
  }

  #workText(): string {
    return JSON.stringify(this.#work(''));
  }
}
