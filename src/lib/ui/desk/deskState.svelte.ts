import { checkPost, type Finding } from '$lib/core/article/checks.ts';
import { compose, type ComposedPost, type Material } from '$lib/core/article/compose.ts';
import { fieldsOf, listFields } from '$lib/core/article/fields.ts';
import { tidyDescription } from '$lib/core/article/description.ts';
import { defaultTemplate, templateSchema, type Template } from '$lib/core/article/template.ts';
import { toParagraphs, type Paragraph } from '$lib/core/captions/paragraphs.ts';
import { htmlText } from '$lib/core/feeds/text.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { Item } from '$lib/core/model/item.ts';
import { canPublish, type Place, type Problem } from '$lib/core/model/place.ts';
import { db, type Details, type Draft } from '$lib/data/db.ts';
import { getBody, getItem } from '$lib/data/items.ts';
import { readDetails } from '$lib/work/details.ts';
import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
import { coreWorker } from '$lib/workers/core.ts';

/** A kept template with what has been added to templates since. */
const asToday = (kept: Template | undefined): Template =>
  templateSchema.parse(structuredClone(kept ?? defaultTemplate));

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
  readonly since: string = new Date().toISOString();
  #saved = '';

  readonly blog = $derived(this.blogs.find((b) => b.id === this.blogId) ?? null);
  readonly key = $derived(
    this.video && this.blog
      ? placementKey(this.video.url || this.video.nativeId, 'post', this.blog.url)
      : ''
  );
  readonly material: Material | null = $derived.by(() => {
    if (!this.video) return null;
    return {
      video: this.video,
      description: this.description,
      cues: this.details?.cues ?? [],
      chapters: this.details?.chapters ?? [],
      seekTo: this.details?.seekTo ?? '',
      channel: { title: this.channel?.title ?? '', url: this.channel?.url ?? '' },
      blog: { title: this.blog?.title ?? '', url: this.blog?.url ?? '' },
      now: this.since,
      key: this.key
    };
  });
  readonly post: ComposedPost | null = $derived(
    this.material && compose($state.snapshot(this.template) as Template, this.material)
  );
  readonly needsCredit = $derived(
    this.video !== null &&
      this.channel !== null &&
      (/creativecommons\.org\/licenses\//.test(this.video.licence) ||
        (this.video.author !== '' &&
          this.channel.author !== '' &&
          this.video.author !== this.channel.author))
  );
  readonly findings: Finding[] = $derived(
    this.post && this.isLoaded ? checkPost(this.post, { needsCredit: this.needsCredit }) : []
  );
  readonly transcript: Paragraph[] = $derived(
    toParagraphs(
      this.details?.cues ?? [],
      (this.details?.chapters ?? []).map((c) => c.start)
    )
  );
  readonly fields = $derived.by(() => {
    if (!this.material) return [];
    const words = this.transcript.reduce((sum, p) => sum + p.text.split(/\s+/).length, 0);
    return listFields(
      fieldsOf({ ...this.material, description: tidyDescription(this.description), words })
    );
  });

  /** Puts a video on the desk: as it was left, else laid out as the last post of its channel. */
  async open(id: string): Promise<void> {
    const video = await getItem(id);
    if (!video) return;
    const [channel, places, draft, kept, body] = await Promise.all([
      db.places.get(video.placeId),
      db.places.where({ kind: 'blog' }).toArray(),
      db.drafts.get(id),
      db.templates.get(video.placeId),
      getBody(id)
    ]);
    this.channel = channel ?? null;
    this.blogs = places;
    this.description = htmlText(body) || video.summary;
    this.template = asToday(draft?.template ?? kept?.template);
    this.status = draft?.status ?? 'draft';
    this.on = draft?.on ?? '';
    this.blogId = draft?.placeId || places.find(canPublish)?.id || places[0]?.id || '';
    this.video = video;
    this.details = (await db.details.get(id)) ?? null;
    this.#saved = this.#asText();
    await this.readAgain();
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
    const text = this.#asText();
    if (!this.video || text === this.#saved) return;
    this.#saved = text;
    const before = await db.drafts.get(this.video.id);
    await db.drafts.put({ ...this.draft(), since: before?.since ?? this.since });
    if (!before) await coreWorker().pairAgain();
  }

  async clear(): Promise<void> {
    if (!this.video) return;
    await db.drafts.delete(this.video.id);
    await coreWorker().pairAgain();
    const kept = await db.templates.get(this.video.placeId);
    this.template = asToday(kept?.template);
    this.#saved = this.#asText();
  }

  /** What was placed lies at the blog now; the desk counts as clear until something is changed. */
  markPlaced(): void {
    this.#saved = this.#asText();
  }

  #asText(): string {
    return JSON.stringify([this.template, this.status, this.on, this.blogId]);
  }
}
