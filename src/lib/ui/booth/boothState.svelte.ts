import type { FrameName } from '$lib/core/narration/frames.ts';
import { FRAMES } from '$lib/core/narration/frames.ts';
import type { Narration } from '$lib/core/narration/narration.ts';
import type { Scene } from '$lib/core/narration/scenes.ts';
import type { Script } from '$lib/core/narration/script.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place } from '$lib/core/model/place.ts';
import { db } from '$lib/data/db.ts';
import { getBody, getItem } from '$lib/data/items.ts';
import { readNarration, removeNarration, saveNarration } from '$lib/data/narrations.ts';
import type { Plan } from '$lib/video/job.ts';
import type { Pictures } from '$lib/video/paint.ts';
import { loadPageFonts } from '$lib/video/fonts.ts';
import { readPictures } from '$lib/video/pictures.ts';
import { fetchPictures, productionOf, sayScenes, type SaidLines } from '$lib/work/narrate.ts';
import { beginNarration, narratePost } from '$lib/work/beginNarration.ts';
import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
import { coreWorker } from '$lib/workers/core.ts';
import { narrationWorker } from '$lib/workers/narration.ts';
import { readyVoices } from '$lib/workers/voice.ts';
import { videoWorker } from '$lib/workers/video.ts';

/** Scenes that can be brought back, at most. */
const HISTORY = 60;

/** All that the booth knows of one post and the video it becomes. */
export class Booth {
  post = $state.raw<Item | null>(null);
  blog = $state.raw<Place | null>(null);
  channels = $state.raw<Place[]>([]);
  narration = $state<Narration | null>(null);
  /** The script as last made; null until it is. */
  script = $state.raw<Script | null>(null);
  plan = $state.raw<Plan | null>(null);
  pictures = $state.raw<Pictures>(new Map());
  said = $state.raw<SaidLines>({ speech: new Map(), silent: new Map() });
  /** Addresses that lead to no picture. */
  missing = $state.raw<string[]>([]);
  current = $state(0);
  /** Whether every line was tried to be said since the last change. */
  isSaid = $state(false);

  #html = '';
  #history = $state.raw<Scene[][]>([]);
  #saved = '';
  #saying: AbortController | null = null;
  #planning = 0;

  readonly frame = $derived(FRAMES[this.narration?.frame ?? 'wide']);
  readonly scene = $derived(this.narration?.scenes[this.current] ?? null);
  readonly canUndo = $derived(this.#history.length > 0);
  /** The post has changed since the scenes were made from it. */
  readonly hasDrifted = $derived(
    this.narration !== null && this.post !== null && this.narration.madeFrom !== this.#source()
  );

  #source(): string {
    return `${this.post?.title ?? ''}\n${this.#html}`;
  }

  /** Puts a post into the booth: as it was left, else with a script proposed. */
  async open(id: string): Promise<void> {
    const post = await getItem(id);
    if (post?.kind !== 'post') return;
    const [blog, channels, html, kept] = await Promise.all([
      db.places.get(post.placeId),
      db.places.where({ kind: 'channel' }).toArray(),
      getBody(id),
      readNarration(id)
    ]);
    this.blog = blog ?? null;
    this.channels = channels;
    this.#html = html;
    this.narration = kept ?? (await beginNarration(post, html, channels));
    // The engine comes while the script is written.
    if (this.narration.voice) readyVoices(this.narration.voice.engine);
    this.post = post;
    await this.readScript();
    if (!kept) this.#take(this.script, false);
    else await this.drawPictures();
  }

  /** Keeps what lies in the booth, and what the next post should begin with. */
  async save(): Promise<void> {
    if (!this.narration) return;
    const narration = $state.snapshot(this.narration) as Narration;
    const text = JSON.stringify({ ...narration, changed: '' });
    if (text === this.#saved) return;
    const isNew = this.#saved === '';
    this.#saved = text;
    await saveNarration({ ...narration, changed: new Date().toISOString() });
    const { voice, frame, style, before, after, format, details, options } = narration;
    await db.settings.put({
      name: 'booth',
      value: { voice, frame, style, before, after, format, details, options }
    });
    if (isNew) await coreWorker().pairAgain();
  }

  /** Reads the post as a script under the options as they are. */
  async readScript(): Promise<void> {
    const { post, blog, narration } = this;
    if (!post || !narration) return;
    const { script, scenes } = await narratePost(
      post,
      this.#html,
      blog,
      $state.snapshot(narration.options) as Narration['options']
    );
    this.script = script;
    this.#proposed = scenes;
  }
  #proposed: Scene[] = [];

  #take(script: Script | null, isUndoable: boolean): void {
    if (!this.narration || !script) return;
    if (isUndoable) this.#remember();
    this.narration.scenes = this.#proposed;
    this.narration.madeFrom = this.#source();
    this.narration.isEdited = false;
    this.current = Math.min(this.current, this.#proposed.length - 1);
    void this.drawPictures();
  }

  /** Makes the scenes anew from the post. What was changed by hand can be had back by undo. */
  async makeAnew(): Promise<void> {
    await this.readScript();
    this.#take(this.script, this.narration?.isEdited ?? false);
  }

  #remember(): void {
    const scenes = $state.snapshot(this.narration?.scenes ?? []) as Scene[];
    this.#history = [...this.#history.slice(-HISTORY), scenes];
  }

  /** Changes the scenes by hand. */
  change(to: (scenes: Scene[]) => Scene[], current = this.current): void {
    if (!this.narration) return;
    this.#remember();
    const changed = to($state.snapshot(this.narration.scenes) as Scene[]);
    this.narration.scenes = changed;
    this.narration.isEdited = true;
    this.current = Math.max(0, Math.min(current, changed.length - 1));
    void this.drawPictures();
  }

  changeScene(changed: Partial<Scene>): void {
    const at = this.current;
    this.change((scenes) => scenes.map((s, i) => (i === at ? { ...s, ...changed } : s)));
  }

  undo(): void {
    const scenes = this.#history.at(-1);
    if (!scenes || !this.narration) return;
    this.#history = this.#history.slice(0, -1);
    this.narration.scenes = scenes;
    this.current = Math.min(this.current, scenes.length - 1);
  }

  /** Writes a line otherwise; what is said follows by the rules of the language. */
  async rewrite(lineId: string, text: string): Promise<void> {
    if (!this.narration) return;
    const options = $state.snapshot(this.narration.options) as Narration['options'];
    const heard = await narrationWorker().heard(text, options);
    this.#onLine(lineId, (line) => ({ ...line, text, heard: line.heard || heard ? heard : '' }));
  }

  /** Says a line otherwise than it is written. */
  sayOtherwise(lineId: string, heard: string): void {
    this.#onLine(lineId, (line) => ({ ...line, heard }));
  }

  #onLine(lineId: string, apply: (line: Scene['lines'][number]) => Scene['lines'][number]): void {
    this.change((scenes) =>
      scenes.map((scene) => ({
        ...scene,
        lines: scene.lines.map((line) => (line.id === lineId ? apply(line) : line))
      }))
    );
  }

  /** Fetches pictures that are not kept yet and readies all of them for painting. */
  async drawPictures(): Promise<void> {
    if (!this.narration) return;
    const scenes = $state.snapshot(this.narration.scenes) as Scene[];
    this.missing = await fetchPictures(scenes);
    const { mark } = this.narration.style;
    this.pictures = await readPictures([
      ...scenes.flatMap((s) => (s.picture ? [s.picture.url] : [])),
      ...(mark ? [mark] : [])
    ]);
    await this.layOut();
  }

  /** Lays the video out, in the frame and in time, as the renderer will. */
  async layOut(): Promise<void> {
    if (!this.narration) return;
    const turn = ++this.#planning;
    const narration = $state.snapshot(this.narration) as Narration;
    const plan = await videoWorker().plan(productionOf(narration, this.said.speech));
    if (turn !== this.#planning) return;
    await loadPageFonts(narration.scenes.flatMap((s) => s.lines.map((l) => l.text)).join(' '));
    this.plan = plan;
  }

  /** Says what is not said yet, under the eyes of the deck. */
  async sayLines(): Promise<void> {
    const { narration, post } = this;
    if (!narration?.voice || !post) {
      this.said = { speech: new Map(), silent: new Map() };
      this.isSaid = true;
      return this.layOut();
    }
    this.#saying?.abort();
    const mine = new AbortController();
    this.#saying = mine;
    this.isSaid = false;
    const { scenes, voice } = $state.snapshot(narration) as Narration;
    if (!voice) return;
    const { value } = await attempt(() =>
      runTask('Saying the sentences', (signal, report) =>
        sayScenes(scenes, voice, AbortSignal.any([signal, mine.signal]), (done, all) =>
          report(`${done} of ${all}`, done / all)
        )
      )
    );
    if (!value || mine.signal.aborted) return;
    this.said = value;
    this.isSaid = true;
    await this.layOut();
  }

  setFrame(frame: FrameName): void {
    if (this.narration) this.narration.frame = frame;
  }

  /** Takes everything of this post out of the booth. */
  async clear(): Promise<void> {
    const { post } = this;
    if (!post) return;
    this.#saying?.abort();
    this.post = null;
    this.narration = null;
    await removeNarration(post.id);
    await coreWorker().pairAgain();
  }
}
