import { ratioOf, SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import { ALONE } from '$lib/core/audio/mix.ts';
import { makeShortSound } from '$lib/core/audio/synth/shortSounds.ts';
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
  async play(
    plan: Plan,
    speech: ReadonlyMap<string, string>,
    music: { name: string; level: number }
  ): Promise<void> {
    this.pause();
    const end = plan.timeLine.duration + plan.after;
    if (this.time >= end - 0.05) this.time = -plan.before;
    this.#context ??= new AudioContext();
    await this.#context.resume();
    this.#zero = this.#context.currentTime - this.time + 0.08;
    this.isPlaying = true;
    const cues = [...soundsOf(plan, speech), ...(await musicOf(plan, music))]
      .sort((a, b) => a.start - b.start)
      .filter((cue) => cue.end > this.time);
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

  async #schedule(cue: HeardCue): Promise<void> {
    const context = this.#context;
    const sound = await cue.read();
    if (!context || !sound || sound.samples.length === 0 || !this.isPlaying) return;
    const buffer = context.createBuffer(1, sound.samples.length, sound.rate);
    buffer.copyToChannel(sound.samples, 0);
    const source = new AudioBufferSourceNode(context, { buffer });
    const gain = new GainNode(context, { gain: cue.gain ?? 1 });
    source.connect(gain).connect(context.destination);
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

interface HeardCue {
  start: number;
  end: number;
  /** Ratio; 1 where it is not said. */
  gain?: number;
  read(): Promise<{ samples: Float32Array<ArrayBuffer>; rate: number } | null>;
}

/** Seconds of music that are read at a time; it gets louder and softer from one to the next. */
const STRETCH = 0.5;

/** Music beneath, in stretches: softer where somebody speaks. */
async function musicOf(
  plan: Plan,
  { name, level }: { name: string; level: number }
): Promise<HeardCue[]> {
  const kept = name ? await getMedia(name) : null;
  if (!kept?.channels || !kept.seconds) return [];
  const { blob, channels } = kept;
  const frames = Math.floor(blob.size / (channels * 2));
  const lines = plan.timeLine.scenes.flatMap((s) => s.lines);
  const count = Math.ceil(plan.timeLine.duration / STRETCH);
  return Array.from({ length: count }, (_, i): HeardCue => {
    const start = i * STRETCH;
    const isSpoken = lines.some((l) => l.start - 0.35 < start + STRETCH && start < l.end + 1.2);
    const decibels = isSpoken ? level : Math.min(0, level + ALONE);
    const from = Math.round(start * SAMPLE_RATE) % frames;
    const length = Math.round(STRETCH * SAMPLE_RATE);
    const read = async () => {
      const parts = [await readKeptSound({ blob, channels }, from, length)];
      const got = parts[0]![0]?.length ?? 0;
      if (got < length) parts.push(await readKeptSound({ blob, channels }, 0, length - got));
      const samples = new Float32Array(length);
      let at = 0;
      for (const sides of parts) {
        const one = sides[0] ?? new Float32Array();
        const other = sides[1] ?? one;
        for (let k = 0; k < one.length && at < length; k++)
          samples[at++] = (one[k]! + other[k]!) / 2;
      }
      return { samples, rate: SAMPLE_RATE };
    };
    return { start, end: start + STRETCH, gain: ratioOf(decibels), read };
  });
}

function soundsOf(plan: Plan, speech: ReadonlyMap<string, string>): HeardCue[] {
  const short = plan.sounds.map(({ at, sound }): HeardCue => ({
    start: at,
    end: at + 1.6,
    gain: 0.5,
    read: () => Promise.resolve({ samples: makeShortSound(sound), rate: SAMPLE_RATE })
  }));
  const said = plan.timeLine.scenes.flatMap((timed, i): HeardCue[] => {
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
  return [...said, ...short];
}
