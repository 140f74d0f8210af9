import type { FrameName } from '$lib/core/narration/frames.ts';
import { FRAMES } from '$lib/core/narration/frames.ts';
import type { Narration } from '$lib/core/narration/narration.ts';
import type { Scene } from '$lib/core/narration/scenes.ts';
import type { Script } from '$lib/core/narration/script.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place } from '$lib/core/model/place.ts';
import { getBody, getItem } from '$lib/data/items.ts';
import { getPlace, placesOfKind } from '$lib/data/places.ts';
import { readNarration, removeNarration, saveNarration } from '$lib/data/narrations.ts';
import type { Plan } from '$lib/video/job.ts';
import type { Pictures } from '$lib/video/paint.ts';
import { loadPageFonts } from '$lib/video/fonts.ts';
import { readPictures } from '$lib/video/pictures.ts';
import { fetchPictures, productionOf, sayScenes, type SaidLines } from '$lib/work/narrate.ts';
import { beginNarration, narratePost } from '$lib/work/beginNarration.ts';
import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
import { narrationWorker } from '$lib/workers/narration.ts';
import { readyVoices } from '$lib/workers/voice.ts';
import { videoWorker } from '$lib/workers/video.ts';
import { Autosave } from '../autosave.svelte.ts';
import { soon } from '../soon.svelte.ts';

/** Scenes that can be imported back, at most. */
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
  #saying: AbortController | null = null;
  #planning = 0;

  readonly autosave = new Autosave(
    () => JSON.stringify(this.narration),
    () => this.#save()
  );
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
      getPlace(post.placeId),
      placesOfKind('channel'),
      getBody(id),
      readNarration(id)
    ]);
    this.blog = blog;
    this.channels = channels;
    this.#html = html;
    this.narration = kept ?? (await beginNarration(post, html, channels));
    // The engine comes while the script is written.
    if (this.narration.voice) readyVoices(this.narration.voice.engine);
    this.post = post;
    await this.readScript();
    if (kept) this.autosave.markSaved();
    else this.autosave.markNew();
    if (!kept) this.#take(this.script, false);
    else await this.drawPictures();
  }

  /** Saves and computes anew what depends on what is changed; to be called within an effect. */
  follow(): void {
    const ready = <T>(value: T): T | null => (this.post ? value : null);
    this.autosave.follow(() => this.post !== null);
    // Scenes follow the options, until they are changed by hand.
    let options = '';
    soon(
      150,
      () => {
        const now = JSON.stringify(this.narration?.options);
        if (!this.post || now === options) return null;
        const isFirst = options === '';
        options = now;
        return isFirst ? null : now;
      },
      () => (this.narration?.isEdited ? this.readScript() : this.makeAnew())
    );
    soon(
      80,
      () => {
        const { scenes, style, frame, voice, before, after } = this.narration ?? {};
        return ready(
          JSON.stringify([
            scenes,
            style,
            frame,
            voice?.sentencePause,
            voice?.partPause,
            before,
            after
          ])
        );
      },
      () => this.layOut()
    );
    soon(
      500,
      () => ready(this.#spoken),
      () => this.sayLines()
    );
  }

  /** All that decides what is said; a change of anything else leaves the voices alone. */
  readonly #spoken = $derived(
    JSON.stringify([
      this.narration?.scenes.map((s) => [s.recording, s.lines.map((l) => [l.id, l.spoken])]),
      this.narration?.voice?.engine,
      this.narration?.voice?.voice,
      this.narration?.voice?.speed
    ])
  );

  async #save(): Promise<void> {
    if (!this.narration) return;
    const narration = $state.snapshot(this.narration) as Narration;
    await saveNarration({ ...narration, changed: new Date().toISOString() });
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
    const spoken = await narrationWorker().spoken(text, options);
    this.#onLine(lineId, (line) => ({
      ...line,
      text,
      spoken: line.spoken || spoken ? spoken : ''
    }));
  }

  /** Says a line otherwise than it is written. */
  sayOtherwise(lineId: string, spoken: string): void {
    this.#onLine(lineId, (line) => ({ ...line, spoken }));
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
      runTask(
        'Saying the sentences',
        (signal, report) =>
          sayScenes(scenes, voice, signal, (done, all) => report(`${done} of ${all}`, done / all)),
        mine.signal
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
  }
}
