import type { FrameName } from '$lib/core/narration/frames.ts';
import { FRAMES } from '$lib/core/narration/frames.ts';
import type { Narration } from '$lib/core/narration/narration.ts';
import type { Line } from '$lib/core/narration/line.ts';
import {
  picturesIn,
  sceneSchema,
  splitScene,
  type Piece,
  type Scene,
  type SceneKind
} from '$lib/core/narration/scenes.ts';
import { pictureGaps } from '$lib/core/narration/pictures/gaps.ts';
import { splitLine } from '$lib/core/narration/splitLine.ts';
import type { Script } from '$lib/core/narration/script.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place, Problem } from '$lib/core/model/place.ts';
import { getBody, getItem } from '$lib/data/items.ts';
import { getPlace, placesOfKind } from '$lib/data/places.ts';
import { readNarration, updateNarration } from '$lib/data/narrations.ts';
import type { Plan } from '$lib/video/job.ts';
import type { Pictures } from '$lib/video/paint.ts';
import { loadOwnFont, loadPageFonts } from '$lib/video/fonts.ts';
import { readPictures } from '$lib/video/pictures.ts';
import { fetchPictures, productionOf, sayScenes, type SaidLines } from '$lib/work/narrate.ts';
import { beginNarration, narratePost } from '$lib/work/beginNarration.ts';
import { fillGaps, withPicture } from '$lib/work/findPictures.ts';
import { discard } from '$lib/work/discard.ts';
import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
import { narrationWorker } from '$lib/workers/narration.ts';
import { readyVoices } from '$lib/workers/voice.ts';
import { videoWorker } from '$lib/workers/video.ts';
import { v4 } from 'uuid';
import { Autosave } from '../autosave.svelte.ts';
import { soon } from '../soon.svelte.ts';

/** Their words come from elsewhere than their lines: the headings of all parts, the cells of a table. */
const FIXED_PIECES: ReadonlySet<SceneKind> = new Set(['map', 'table', 'chart']);

/** What was read stays with its words when scenes are made anew. */
function withTakes(scenes: readonly Scene[], before: readonly Scene[]): Scene[] {
  const takes = new Map(
    before.flatMap((s) => s.lines.flatMap((l) => (l.take ? [[l.spoken, l.take] as const] : [])))
  );
  if (takes.size === 0) return [...scenes];
  return scenes.map((scene) => ({
    ...scene,
    lines: scene.lines.map((line) => ({ ...line, take: takes.get(line.spoken) }))
  }));
}

/** All that can be changed in the booth, field by field. */
type NarrationFields = Omit<Narration, 'changed'>;

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
  /** Why lines could not be tried to be said. */
  notSaid = $state.raw<Problem | null>(null);

  #html = '';
  #saying: AbortController | null = null;
  #planning = 0;

  readonly autosave = new Autosave<NarrationFields>({
    name: () => (this.post ? `booth/${this.post.id}` : ''),
    read: () => {
      if (!this.narration) return null;
      const { changed: _changed, ...fields } = $state.snapshot(this.narration) as Narration;
      return fields;
    },
    take: (fields) => this.#putIn(fields),
    stored: () => readNarration(this.post?.id ?? ''),
    update: (merge) =>
      updateNarration(this.post?.id ?? '', (stored) => ({
        ...merge(stored),
        changed: new Date().toISOString()
      }))
  });
  readonly frame = $derived(FRAMES[this.narration?.frame ?? 'wide']);
  /** Where words alone are seen for too long. */
  readonly gaps = $derived(this.plan ? pictureGaps(this.plan.scenes, this.plan.timeLine) : []);
  readonly scene = $derived(this.narration?.scenes[this.current] ?? null);
  /** The post has changed since the scenes were made from it. */
  readonly hasDrifted = $derived(
    this.narration !== null && this.post !== null && this.narration.madeFrom !== this.#source()
  );

  #source(): string {
    return `${this.post?.title ?? ''}\n${this.#html}`;
  }

  /** Puts a post into the booth: as it was left, else with a script proposed. */
  async open(id: string): Promise<void> {
    // They start while the post is read.
    void narrationWorker().ready();
    void videoWorker().ready();
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
    if (this.narration.voice) void readyVoices(this.narration.voice.engine);
    this.post = post;
    // From here on it can be typed in: the script is read meanwhile.
    this.autosave.begin(!kept);
    await this.readScript();
    if (this.narration.scenes.length === 0 && !this.narration.isEdited) {
      this.#putProposed();
      this.autosave.rebase();
    }
    await this.drawPictures();
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
        const { scenes, style, frame, voice, options, sounds, before, after } =
          this.narration ?? {};
        return ready(
          JSON.stringify([
            scenes,
            style,
            frame,
            voice?.sentencePause,
            voice?.partPause,
            options?.target,
            sounds,
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
      this.narration?.scenes.map((s) => [
        s.recording,
        s.lines.map((l) => [l.id, l.spoken, l.take?.key])
      ]),
      this.narration?.voice?.engine,
      this.narration?.voice?.voice,
      this.narration?.voice?.speed,
      this.narration?.voice?.tone
    ])
  );

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

  #putProposed(): void {
    if (!this.narration || !this.script) return;
    this.narration.scenes = withTakes(this.#proposed, this.narration.scenes);
    this.narration.madeFrom = this.#source();
    this.narration.isEdited = false;
    this.current = Math.min(this.current, this.#proposed.length - 1);
  }

  /** Makes the scenes anew from the post. What was changed by hand can be had back by undo. */
  async makeAnew(): Promise<void> {
    await this.readScript();
    if (this.narration?.isEdited) this.autosave.change(() => this.#putProposed());
    else this.#putProposed();
    await this.drawPictures();
  }

  /** Fields as they were before, or as another tab has them by now. */
  #putIn(fields: Partial<NarrationFields>): void {
    if (!this.narration) return;
    Object.assign(this.narration, structuredClone(fields));
    this.current = Math.max(0, Math.min(this.current, this.narration.scenes.length - 1));
    if (!fields.scenes) return;
    for (const { id, text } of fields.scenes.flatMap((s) => s.lines))
      if (this.#unsaid.has(`${id} ${text}`)) void this.#sayAnew(id, text);
    void this.drawPictures();
  }

  /** Changes the scenes by hand, as a step of its own. */
  change(to: (scenes: Scene[]) => Scene[], current = this.current): void {
    this.autosave.change(() => this.#write(to, current));
  }

  #write(to: (scenes: Scene[]) => Scene[], current = this.current): void {
    if (!this.narration) return;
    const changed = to($state.snapshot(this.narration.scenes) as Scene[]);
    this.narration.scenes = changed;
    this.narration.isEdited = true;
    this.current = Math.max(0, Math.min(current, changed.length - 1));
    void this.drawPictures();
  }

  /** A line of the user's own, said by the rules of the language. */
  async #newLine(text: string): Promise<Line> {
    const options = $state.snapshot(this.narration?.options) as Narration['options'];
    return { id: v4(), text, spoken: await narrationWorker().spoken(text, options), source: null };
  }

  /** What is shown of some lines in a kind of scene. */
  #piecesFor(kind: SceneKind, texts: readonly string[]): Promise<Piece[]> {
    const options = $state.snapshot(this.narration?.options) as Narration['options'];
    return narrationWorker().pieces(kind, [...texts], options);
  }

  /** Shows a scene in another way, with the words that belong to it. */
  async showAs(kind: SceneKind): Promise<void> {
    const { scene } = this;
    if (!scene) return;
    // A table and a chart tell the same.
    if (kind === 'chart' || (kind === 'table' && scene.columns > 1))
      return this.changeScene({ kind });
    const { id } = scene;
    const pieces = await this.#piecesFor(
      kind,
      scene.lines.map((l) => l.text)
    );
    if (this.scene?.id === id) this.changeScene({ kind, pieces });
  }

  /** Puts a scene with a sentence after the one that is shown. */
  async addScene(text: string): Promise<void> {
    const line = await this.#newLine(text);
    const pieces = await this.#piecesFor('statement', [text]);
    const scene = sceneSchema.parse({ id: line.id, kind: 'statement', lines: [line], pieces });
    const at = this.current + 1;
    this.change((scenes) => scenes.toSpliced(at, 0, scene), at);
  }

  /** Makes two scenes of the one that is shown: by its lines, or within its only one. */
  async split(): Promise<void> {
    const { scene, current } = this;
    const only = scene?.lines.length === 1 ? scene.lines[0] : null;
    if (!scene || !only) return this.change((scenes) => splitScene(scenes, current));
    const halves = splitLine(only.text);
    if (!halves) return;
    const lines = await Promise.all(halves.map((text) => this.#newLine(text)));
    const pieces = scene.pieces.length > 0 ? await this.#piecesFor('statement', halves) : [];
    this.change((scenes) => {
      const parted = scenes.map((s, i) => (i === current ? { ...s, lines, pieces } : s));
      return splitScene(parted, current);
    });
  }

  /** Whether every cut keeps the scene that is shown. */
  readonly isPinned = $derived(
    this.scene?.lines.some((l) => this.narration?.options.pinned.includes(l.id)) ?? false
  );

  pin(isPinned: boolean): void {
    const { scene, narration } = this;
    if (!scene || !narration) return;
    const ids = new Set(scene.lines.map((l) => l.id));
    const others = narration.options.pinned.filter((id) => !ids.has(id));
    narration.options.pinned = isPinned ? [...others, ...ids] : others;
  }

  /** Puts the best pictures into the stretches that have none. @returns how many pictures */
  async fillGaps(): Promise<number> {
    const { narration, post, plan } = this;
    if (!narration || !post || !plan) return 0;
    const scenes = $state.snapshot(narration.scenes) as Scene[];
    const { language } = narration.options;
    const { value } = await attempt(() => fillGaps(scenes, plan.timeLine, post.title, language));
    if (!value || value.length === 0) return 0;
    const chosen = new Map(value.map(({ at, picture }) => [scenes[at]?.id ?? '', picture]));
    this.change((now) =>
      now.map((scene) => {
        const picture = chosen.get(scene.id);
        return picture ? withPicture(scene, picture) : scene;
      })
    );
    return value.length;
  }

  changeScene(changed: Partial<Scene>): void {
    this.autosave.change(() => this.writeScene(changed));
  }

  /** Changes something of a scene while it is being typed. */
  writeScene(changed: Partial<Scene>): void {
    const at = this.current;
    this.#write((scenes) => scenes.map((s, i) => (i === at ? { ...s, ...changed } : s)));
  }

  /** Writes a line otherwise; what is said and shown of it follows, as part of the same step. */
  async rewrite(lineId: string, text: string): Promise<void> {
    this.#onLine(lineId, (line) => ({ ...line, text }));
    await this.#sayAnew(lineId, text);
  }

  /** Texts of lines that were undone or typed over before they were turned into speech. */
  readonly #unsaid = new Set<string>();

  async #sayAnew(lineId: string, text: string): Promise<void> {
    if (!this.narration) return;
    const key = `${lineId} ${text}`;
    this.#unsaid.add(key);
    const step = this.autosave.step();
    const options = $state.snapshot(this.narration.options) as Narration['options'];
    const spoken = await narrationWorker().spoken(text, options);
    const scene = this.narration.scenes.find((s) => s.lines.some((l) => l.id === lineId));
    const line = scene?.lines.find((l) => l.id === lineId);
    // What was typed meanwhile has its own answer to come; what was undone is asked for when it is redone.
    if (!scene || line?.text !== text) return;
    this.#unsaid.delete(key);
    if (line.spoken || spoken)
      this.autosave.extend(step, () => this.#onLine(lineId, (l) => ({ ...l, spoken })));
    await this.#showAnew(scene, step);
  }

  /** Words on the screen follow the lines they are taken from. */
  async #showAnew({ id, kind, lines, pieces: known }: Scene, step: number | null): Promise<void> {
    if (known.length === 0 || FIXED_PIECES.has(kind)) return;
    const texts = lines.map((l) => l.text);
    const pieces = await this.#piecesFor(kind, texts);
    const isSame = (s: Scene) =>
      s.id === id && s.kind === kind && s.lines.every((l, i) => l.text === texts[i]);
    if (!this.narration?.scenes.some(isSame)) return;
    this.autosave.extend(step, () =>
      this.#write((scenes) => scenes.map((s) => (isSame(s) ? { ...s, pieces } : s)))
    );
  }

  /** Changes words on the screen while they are being typed. */
  writePiece(index: number, text: string): void {
    const { scene } = this;
    if (!scene) return;
    this.writeScene({ pieces: scene.pieces.map((p, i) => (i === index ? { ...p, text } : p)) });
  }

  /** Says a line otherwise than it is written. */
  sayOtherwise(lineId: string, spoken: string): void {
    this.#onLine(lineId, (line) => ({ ...line, spoken }));
  }

  #onLine(lineId: string, apply: (line: Scene['lines'][number]) => Scene['lines'][number]): void {
    this.#write((scenes) =>
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
    this.pictures = await readPictures([...picturesIn(scenes), ...(mark ? [mark] : [])]);
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
    if (narration.style.font) await loadOwnFont(document.fonts, narration.style.font);
    this.plan = plan;
  }

  /** Says what is not said yet, under the eyes of the deck. */
  async sayLines(): Promise<void> {
    const { narration, post } = this;
    if (!narration || !post) return;
    this.#saying?.abort();
    const mine = new AbortController();
    this.#saying = mine;
    this.notSaid = null;
    const { scenes, voice } = $state.snapshot(narration) as Narration;
    const { value, problem } = await attempt(() =>
      runTask(
        'Saying the sentences',
        (signal, report) =>
          sayScenes(scenes, voice, signal, (done, all) => report(`${done} of ${all}`, done / all)),
        mine.signal
      )
    );
    if (mine.signal.aborted) return;
    this.notSaid = problem;
    if (!value) return;
    this.said = value;
    await this.layOut();
  }

  /** Puts what the user read in the place of the voice, or the voice back where there is none. */
  setTakes(takes: ReadonlyMap<string, Line['take']>): void {
    const { narration } = this;
    if (!narration) return;
    this.autosave.change(() => {
      for (const line of narration.scenes.flatMap((s) => s.lines))
        if (takes.has(line.id)) line.take = takes.get(line.id);
    });
  }

  setFrame(frame: FrameName): void {
    if (this.narration) this.narration.frame = frame;
  }

  /** Takes everything of this post out of the booth. @returns the name under which it can be brought back */
  async clear(): Promise<string> {
    const { post } = this;
    if (!post) return '';
    this.#saying?.abort();
    await this.autosave.saveNow();
    this.post = null;
    this.narration = null;
    return discard({ what: 'discarded', title: post.title, itemId: post.id }, [
      ['narrations', post.id],
      ['renders', post.id]
    ]);
  }
}
