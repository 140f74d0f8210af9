import { untrack } from 'svelte';
import { toProblem } from '$lib/core/delivery/retry.ts';
import { changedFields, fieldNames, reconcile, type Reconciled } from '$lib/core/model/fields.ts';
import sameValue from 'fast-deep-equal';
import type { Problem } from '$lib/core/model/place.ts';
import { follow } from '$lib/data/live.ts';
import { dropUnsaved, keepUnsaved, readUnsaved } from '$lib/data/unsaved.ts';
import { z } from 'zod';
import { History } from './history.svelte.ts';

/** Milliseconds after which a change is saved at the latest, and before a refused write is tried again. */
const [SOON, AGAIN] = [80, 5_000];

const unsavedSchema = z
  .object({
    known: z.record(z.string(), z.unknown()),
    here: z.record(z.string(), z.unknown())
  })
  .nullable()
  .catch(null);

/** What is edited in a view, as the saving needs it. */
export interface Edited<F extends object> {
  /** The same after a reload; empty while nothing is open. */
  name(): string;
  /** All fields as they are here. What it reads is followed. */
  read(): F | null;
  /** Puts other values into some fields. */
  take(fields: Partial<F>): void;
  /** Brings what is still in an editor of its own into what `read` reads. */
  settle?(): void;
  /** The fields as they are kept; what was never kept is missing. */
  stored(): Promise<Partial<F> | null>;
  /** Keeps what `merge` makes of what is kept, in one transaction. */
  update(merge: (stored: Partial<F> | null) => F): Promise<unknown>;
}

/**
 * Saves by itself what is being edited, at the latest a moment after it was typed and whenever the
 * page is left. Only fields that were changed here are written; what another tab changes meanwhile is
 * shown, and where both changed the same field the user chooses. Keeps the history of the view.
 */
export class Autosave<F extends object> {
  /** Why the last write was refused; it is tried again. */
  problem = $state.raw<Problem | null>(null);
  /** Fields that were changed here and elsewhere, as they are there. */
  clashing = $state.raw<Partial<F>>({});
  readonly #history = new History<F>();
  readonly canUndo = $derived(this.#history.canUndo);
  readonly canRedo = $derived(this.#history.canRedo);
  /** As what is kept and what is here last agreed; null before anything was read. */
  #known: Partial<F> | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #work: Promise<unknown> = Promise.resolve();

  constructor(private readonly edited: Edited<F>) {}

  /**
   * To be called when what is kept was read. Takes up what a page that went away could not save.
   * @param isNew it is not kept yet, and is to be
   */
  begin(isNew = false): void {
    const here = this.edited.read();
    this.clashing = {};
    this.problem = null;
    this.#known = here && (isNew ? {} : { ...here });
    this.#history.begin(here);
    const left = unsavedSchema.parse(readUnsaved(this.edited.name()));
    if (!left || !here || !this.#known) return;
    const typed = { ...here };
    for (const name of fieldNames(here))
      if (name in left.here) typed[name] = left.here[name as string] as F[keyof F];
    const known = left.known as Partial<F>;
    const { taken, clashing } = reconcile(known, typed, here);
    for (const name of fieldNames(clashing as F)) this.#known[name] = known[name];
    this.clashing = clashing;
    const unsaved = changedFields(here, { ...typed, ...taken });
    this.edited.take(unsaved);
  }

  /** Takes what there is now for kept: it was handed on elsewhere, or thrown away. */
  markSaved(): void {
    this.#known = { ...this.edited.read() } as Partial<F>;
    this.clashing = {};
    dropUnsaved(this.edited.name());
  }

  /** What changed by itself just now is no step that the user could undo. */
  rebase(): void {
    const now = this.edited.read();
    if (now) this.#history.rebase(now);
  }

  /** Follows changes for as long as the component lives; to be called while it is set up. */
  follow(isReady: () => boolean): void {
    $effect(() => {
      const here = this.edited.read();
      if (!isReady() || !here) return;
      untrack(() => {
        this.#history.note(here, Date.now());
        if (this.#keepAside(here)) this.touch();
      });
    });
    $effect(() => {
      const leave = () => {
        // A field that is left in the middle of typing has not told its change yet.
        if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
        this.leave();
      };
      const hide = () => {
        if (document.visibilityState !== 'hidden') return;
        document.activeElement?.dispatchEvent(new Event('change', { bubbles: true }));
        this.leave();
      };
      addEventListener('pagehide', leave);
      document.addEventListener('visibilitychange', hide);
      return () => {
        removeEventListener('pagehide', leave);
        document.removeEventListener('visibilitychange', hide);
        this.leave();
      };
    });
    $effect(() => {
      if (!isReady() || !this.edited.name()) return;
      return follow(
        () => this.edited.stored(),
        () => this.#queue(() => this.#meet()),
        (error) => console.error(error)
      );
    });
  }

  /** Something was typed: it is saved in a moment. */
  touch(): void {
    this.#timer ??= setTimeout(() => void this.saveNow(), SOON);
  }

  /** The page may be gone at any time now: what is not kept yet is written where that is done at once. */
  leave(): void {
    untrack(() => {
      this.edited.settle?.();
      const here = this.edited.read();
      if (here && this.#keepAside(here)) void this.saveNow();
    });
  }

  /**
   * Writes what is not kept yet where that is done at once: the database takes a moment, and the page
   * may be gone by then. @returns whether there is anything
   */
  #keepAside(here: F): boolean {
    const changed = this.#known ? changedFields(this.#known, here) : {};
    const names = fieldNames(changed as F);
    if (names.length === 0) return false;
    const known: Partial<F> = {};
    for (const name of names) known[name] = this.#known?.[name];
    keepUnsaved(this.edited.name(), { known, here: changed });
    return true;
  }

  /** Saves what has changed, after any write that is under way. */
  saveNow(): Promise<void> {
    clearTimeout(this.#timer);
    this.#timer = undefined;
    return this.#queue(() => this.#save());
  }

  #queue(work: () => Promise<void>): Promise<void> {
    const done = this.#work.then(work);
    this.#work = done;
    return done;
  }

  #isChanged(here: F): boolean {
    return this.#known !== null && Object.keys(changedFields(this.#known, here)).length > 0;
  }

  async #save(): Promise<void> {
    this.edited.settle?.();
    const here = this.edited.read();
    const known = this.#known;
    if (!known || !here || !this.#isChanged(here)) return;
    try {
      let found: Reconciled<F> = { kept: here, taken: {}, clashing: {} };
      await this.edited.update((stored) => {
        found = reconcile(known, here, stored ?? {});
        return found.kept;
      });
      this.problem = null;
      this.#agree(found, here, found.kept);
      const now = this.edited.read();
      if (!now || !this.#isChanged(now)) dropUnsaved(this.edited.name());
    } catch (error) {
      this.problem = toProblem(error);
      this.#keepAside(here);
      this.#timer ??= setTimeout(() => void this.saveNow(), AGAIN);
    }
  }

  /** What is kept was changed, here or elsewhere. */
  async #meet(): Promise<void> {
    const stored = await this.edited.stored().catch(() => null);
    this.edited.settle?.();
    const here = this.edited.read();
    if (!stored || !here || !this.#known) return;
    const found = reconcile(this.#known, here, stored);
    const agreed: Partial<F> = {};
    for (const name of fieldNames(here))
      if (name in stored && sameValue(stored[name], here[name])) agreed[name] = here[name];
    this.#agree(found, here, agreed);
  }

  /** @param here the fields when they were compared; what was typed since stays */
  #agree({ taken, clashing }: Reconciled<F>, here: F, agreed: Partial<F>): void {
    const known: Partial<F> = { ...this.#known };
    const now = this.edited.read() ?? here;
    const shown: Partial<F> = {};
    for (const name of fieldNames(agreed as F))
      if (!(name in clashing) && !(name in taken)) known[name] = agreed[name];
    for (const name of fieldNames(taken as F)) {
      if (!sameValue(now[name], here[name])) continue;
      shown[name] = known[name] = taken[name];
    }
    this.#known = known;
    this.clashing = clashing;
    if (Object.keys(shown).length > 0) this.#show(shown);
  }

  #show(fields: Partial<F>): void {
    this.#history.rebase(fields);
    this.edited.take(fields);
  }

  /** Of what was changed here and elsewhere, keeps what is here. */
  keepMine(): Promise<void> {
    this.#known = { ...this.#known, ...this.clashing } as Partial<F>;
    this.clashing = {};
    return this.saveNow();
  }

  /** Of what was changed here and elsewhere, takes what is there. */
  takeTheirs(): void {
    const theirs = this.clashing;
    this.#known = { ...this.#known, ...theirs } as Partial<F>;
    this.clashing = {};
    this.edited.take(theirs);
    dropUnsaved(this.edited.name());
  }

  /** Makes a change that is a step of its own in the history, whatever is typed before or after it. */
  change(make: () => void): void {
    this.#noteNow();
    this.#history.close();
    make();
    this.#noteNow();
    this.#history.close();
  }

  /** The step of the history that ends with what there is now. */
  step(): number | null {
    this.#noteNow();
    return this.#history.step;
  }

  /** Makes a change that follows from a step, as part of it: undone with it, however late it comes. */
  extend(step: number | null, make: () => void): void {
    this.#noteNow();
    make();
    this.edited.settle?.();
    const here = this.edited.read();
    if (here) this.#history.extend(step, here, Date.now());
  }

  undo(): void {
    this.#noteNow();
    this.#put(this.#history.undo());
  }

  redo(): void {
    this.#noteNow();
    this.#put(this.#history.redo());
  }

  #noteNow(): void {
    this.edited.settle?.();
    const here = this.edited.read();
    if (here) this.#history.note(here, Date.now());
  }

  #put(fields: Partial<F> | null): void {
    if (!fields) return;
    this.edited.take(fields);
    this.touch();
  }
}
