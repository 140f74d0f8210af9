import { toProblem } from '$lib/core/delivery/retry.ts';
import type { Problem } from '$lib/core/model/place.ts';

/** Milliseconds that a change waits for others, and before a refused write is tried again. */
const [SOON, AGAIN] = [400, 5_000];

/**
 * Saves by itself what is being edited. What was written counts as saved only after the write; a
 * write that the browser refuses is tried again, and `problem` says so meanwhile.
 */
export class Autosave {
  problem = $state.raw<Problem | null>(null);
  #saved: string | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #writing: Promise<void> = Promise.resolve();

  /**
   * @param read the text of all that is saved; what it reads is followed
   * @param write saves it as it is now
   */
  constructor(
    private readonly read: () => string,
    private readonly write: () => Promise<unknown>
  ) {}

  /** Takes what there is now for saved: it was just read, or was handed on elsewhere. */
  markSaved(): void {
    this.#saved = this.read();
    this.problem = null;
  }

  /** Takes what there is now for new: it is saved as soon as changes are followed. */
  markNew(): void {
    this.#saved = '';
  }

  /** Follows changes for as long as the component lives; to be called while it is set up. */
  follow(isReady: () => boolean): void {
    $effect(() => {
      const text = this.read();
      if (!isReady() || text === this.#saved) return;
      this.#later(SOON);
    });
    $effect(() => {
      const leave = () => void this.saveNow();
      const hide = () => document.visibilityState === 'hidden' && leave();
      addEventListener('pagehide', leave);
      document.addEventListener('visibilitychange', hide);
      return () => {
        removeEventListener('pagehide', leave);
        document.removeEventListener('visibilitychange', hide);
        leave();
      };
    });
  }

  #later(wait: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.saveNow(), wait);
  }

  /** Saves what has changed, after any write that is under way. */
  saveNow(): Promise<void> {
    clearTimeout(this.#timer);
    this.#writing = this.#writing.then(() => this.#save());
    return this.#writing;
  }

  async #save(): Promise<void> {
    const text = this.read();
    if (this.#saved === null || text === this.#saved) return;
    try {
      await this.write();
      this.#saved = text;
      this.problem = null;
    } catch (error) {
      this.problem = toProblem(error);
      this.#later(AGAIN);
    }
  }
}
