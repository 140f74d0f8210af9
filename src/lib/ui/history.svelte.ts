import sameValue from 'fast-deep-equal';
import { changedFields, fieldNames } from '$lib/core/model/fields.ts';

interface Step<F> {
  before: Partial<F>;
  after: Partial<F>;
  /** Milliseconds since 1970. */
  begun: number;
  at: number;
}

/** Steps that can be undone, at most. */
const MOST = 200;
/** Milliseconds: typing without a longer pause is one step, up to so much of it. */
const [PAUSE, LONGEST] = [800, 4_000];

/** The one history of a view: each step holds the fields that it changed, and no others. */
export class History<F extends object> {
  #past = $state.raw<readonly Step<F>[]>([]);
  #future = $state.raw<readonly Step<F>[]>([]);
  #last: F | null = null;
  #isClosed = true;

  readonly canUndo = $derived(this.#past.length > 0);
  readonly canRedo = $derived(this.#future.length > 0);

  /** Begins anew with what there is. */
  begin(now: F | null): void {
    this.#last = now;
    this.#past = [];
    this.#future = [];
    this.#isClosed = true;
  }

  /** Takes what came from elsewhere for given: it is no step that could be undone. */
  rebase(fields: Partial<F>): void {
    if (this.#last) this.#last = { ...this.#last, ...fields };
  }

  /** The next change is a step of its own. */
  close(): void {
    this.#isClosed = true;
  }

  /**
   * Notes what there is now, where it differs from the last.
   * @param time milliseconds since 1970
   */
  note(now: F, time: number): void {
    const last = this.#last;
    this.#last = now;
    if (!last) return;
    const after = changedFields(last, now);
    const names = fieldNames(after as F);
    if (names.length === 0) return;
    const before: Partial<F> = {};
    for (const name of names) before[name] = last[name];
    const previous = this.#past.at(-1);
    const goesOn =
      !this.#isClosed &&
      previous !== undefined &&
      time - previous.at < PAUSE &&
      time - previous.begun < LONGEST &&
      sameValue(Object.keys(previous.after), names);
    this.#past = goesOn
      ? [...this.#past.slice(0, -1), { ...previous, after, at: time }]
      : [...this.#past.slice(-MOST + 1), { before, after, begun: time, at: time }];
    this.#future = [];
    this.#isClosed = false;
  }

  /** The last step, as `extend` is to be told it; typing that goes on stays the same step. */
  get step(): number | null {
    return this.#past.at(-1)?.begun ?? null;
  }

  /**
   * Notes what there is now as part of a step, from which it followed a moment later. Where another step came since, it
   * is a step of its own.
   * @param time milliseconds since 1970
   */
  extend(step: number | null, now: F, time: number): void {
    const [last, previous] = [this.#last, this.#past.at(-1)];
    if (!last || !previous || previous.begun !== step) return this.note(now, time);
    this.#last = now;
    const after = changedFields(last, now);
    const names = fieldNames(after as F);
    if (names.length === 0) return;
    const before: Partial<F> = { ...previous.before };
    for (const name of names) if (!(name in before)) before[name] = last[name];
    const extended = { ...previous, before, after: { ...previous.after, ...after } };
    this.#past = [...this.#past.slice(0, -1), extended];
    this.#future = [];
  }

  /** @returns the fields to be put back, or null */
  undo(): Partial<F> | null {
    const step = this.#past.at(-1);
    if (!step) return null;
    this.#past = this.#past.slice(0, -1);
    this.#future = [...this.#future, step];
    return this.#to(step.before);
  }

  redo(): Partial<F> | null {
    const step = this.#future.at(-1);
    if (!step) return null;
    this.#future = this.#future.slice(0, -1);
    this.#past = [...this.#past, step];
    return this.#to(step.after);
  }

  #to(fields: Partial<F>): Partial<F> {
    this.rebase(fields);
    this.#isClosed = true;
    return fields;
  }
}
