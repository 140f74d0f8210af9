import { SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import { getMedia } from '$lib/data/media.ts';
import { readSpeech } from '$lib/data/speech.ts';
import { readKeptSound } from '$lib/video/ownMedia.ts';
import type { Plan } from '$lib/video/job.ts';

/** Seconds of sound that are readied ahead. */
const AHEAD = 8;
const LOOK_EVERY = 400;

/** Plays the sound of a planned video and says the time that goes with it. */
export class Preview {
  /** Seconds of the time line: below 0 in the clip in front, past its end in the one after it. */
  time = $state(0);
  isPlaying = $state(false);

  #context: AudioContext | null = null;
  /** The context's time at which the video would have begun. */
  #zero = 0;
  #sources = new Set<AudioBufferSourceNode>();
  #frame = 0;
  #timer: ReturnType<typeof setInterval> | undefined;

  /** @param speech name of the kept speech of each line */
  async play(plan: Plan, speech: ReadonlyMap<string, string>): Promise<void> {
    this.pause();
    const end = plan.timeLine.duration + plan.after;
    if (this.time >= end - 0.05) this.time = -plan.before;
    this.#context ??= new AudioContext();
    await this.#context.resume();
    this.#zero = this.#context.currentTime - this.time + 0.08;
    this.isPlaying = true;
    const cues = soundsOf(plan, speech).filter((cue) => cue.end > this.time);
    const ready = async () => {
      while (cues[0] && cues[0].start < this.time + AHEAD) {
        const cue = cues.shift();
        if (cue) await this.#schedule(cue);
      }
    };
    void ready();
    this.#timer = setInterval(() => void ready(), LOOK_EVERY);
    const tick = () => {
      if (!this.isPlaying || !this.#context) return;
      this.time = Math.min(end, Math.max(-plan.before, this.#context.currentTime - this.#zero));
      if (this.time >= end) this.pause();
      else this.#frame = requestAnimationFrame(tick);
    };
    this.#frame = requestAnimationFrame(tick);
  }

  async #schedule(cue: SoundCue): Promise<void> {
    const context = this.#context;
    const sound = await cue.read();
    if (!context || !sound || sound.samples.length === 0 || !this.isPlaying) return;
    const buffer = context.createBuffer(1, sound.samples.length, sound.rate);
    buffer.copyToChannel(sound.samples, 0);
    const source = new AudioBufferSourceNode(context, { buffer });
    source.connect(context.destination);
    const late = Math.max(0, context.currentTime - this.#zero - cue.start);
    source.start(Math.max(context.currentTime, this.#zero + cue.start), late);
    source.onended = () => this.#sources.delete(source);
    this.#sources.add(source);
  }

  pause(): void {
    this.isPlaying = false;
    cancelAnimationFrame(this.#frame);
    clearInterval(this.#timer);
    for (const source of this.#sources) source.stop();
    this.#sources.clear();
  }

  /** Plays one kept sentence by itself. */
  async say(key: string): Promise<void> {
    this.pause();
    const kept = await readSpeech(key);
    if (!kept) return;
    this.#context ??= new AudioContext();
    await this.#context.resume();
    const buffer = this.#context.createBuffer(1, kept.samples.length, kept.rate);
    buffer.copyToChannel(kept.samples, 0);
    const source = new AudioBufferSourceNode(this.#context, { buffer });
    source.connect(this.#context.destination);
    source.start();
    this.#sources.add(source);
  }

  close(): void {
    this.pause();
    void this.#context?.close();
    this.#context = null;
  }
}

interface SoundCue {
  start: number;
  end: number;
  read(): Promise<{ samples: Float32Array<ArrayBuffer>; rate: number } | null>;
}

function soundsOf(plan: Plan, speech: ReadonlyMap<string, string>): SoundCue[] {
  return plan.timeLine.scenes.flatMap((timed, i): SoundCue[] => {
    const recording = plan.scenes[i]?.recording;
    const [first, last] = [timed.lines[0], timed.lines.at(-1)];
    if (recording && first && last) {
      const read = async () => {
        const kept = await getMedia(recording);
        if (!kept?.channels) return null;
        const [samples] = await readKeptSound({ blob: kept.blob, channels: kept.channels });
        return samples
          ? { samples: samples as Float32Array<ArrayBuffer>, rate: SAMPLE_RATE }
          : null;
      };
      return [{ start: first.start, end: last.end, read }];
    }
    return timed.lines.flatMap((line) => {
      const key = speech.get(line.id);
      if (!key) return [];
      const read = () => readSpeech(key);
      return [{ start: line.start, end: line.end, read }];
    });
  });
}
