import type { Line } from '$lib/core/narration/line.ts';
import { keepTake } from '$lib/work/takes.ts';
import { attempt } from '$lib/work/tasks.svelte.ts';
import type { Booth } from './boothState.svelte.ts';
import { Microphone } from './microphone.svelte.ts';

/** The script being read aloud, sentence by sentence. */
export class Reading {
  readonly microphone = new Microphone();
  /** The sentence to be read. */
  at = $state(0);
  isDenoised = $state(true);
  message = $state('');
  /** Sentences that were read and are being cleaned and cut. */
  pending = $state(0);

  constructor(private readonly booth: Booth) {}

  /** All that is to be read, as it is said. */
  readonly lines = $derived.by((): Line[] =>
    (this.booth.narration?.scenes ?? []).flatMap((s) =>
      s.recording ? [] : s.lines.filter((l) => l.spoken)
    )
  );
  readonly line = $derived(this.lines[this.at] ?? null);
  readonly readCount = $derived(this.lines.filter((l) => l.take).length);
  readonly isAtEnd = $derived(this.at >= this.lines.length);

  /** Listens, from the first sentence that has no take yet. */
  async start(): Promise<void> {
    this.message = await this.microphone.start();
    if (this.message) return;
    if (this.isAtEnd) this.at = 0;
  }

  /** Keeps what was read and goes on to the next sentence. */
  next(): void {
    const { line } = this;
    if (this.microphone.isOn && line) void this.#keep(line, this.microphone.cut());
    this.#move(this.at + 1);
    if (this.isAtEnd) this.microphone.stop();
  }

  /** Throws away what was heard of this sentence so far. */
  again(): void {
    this.microphone.cut();
  }

  /** Goes to another sentence without keeping what was heard. */
  goTo(at: number): void {
    this.microphone.cut();
    this.#move(at);
  }

  #move(at: number): void {
    this.at = Math.max(0, Math.min(at, this.lines.length));
  }

  async #keep({ id, text, spoken }: Line, samples: Float32Array): Promise<void> {
    this.pending++;
    const language = this.booth.narration?.options.language ?? '';
    const { isDenoised } = this;
    const { value, problem } = await attempt(() =>
      keepTake({ samples, spoken, language, isDenoised, lead: 0 })
    );
    this.pending--;
    if (value) this.booth.setTakes(new Map([[id, { key: value.key, spoken }]]));
    else
      this.message = problem
        ? 'A sentence could not be kept. Read it again.'
        : `Nothing was heard of “${text.slice(0, 60)}”. Go back and read it again.`;
  }

  close(): void {
    this.microphone.stop();
  }
}
