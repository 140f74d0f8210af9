import {
  ALONE,
  gainFor,
  limited,
  mixed,
  type Bed,
  type Mix,
  type AudioClip
} from '$lib/core/audio/mix.ts';
import { LoudnessMeter, SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import { PieceResampler } from '$lib/core/audio/resample.ts';
import { makeShortSound } from '$lib/core/audio/synth/shortSounds.ts';
import type { Scene } from '$lib/core/narration/scenes.ts';
import type { SoundCue } from '$lib/core/narration/soundCues.ts';
import type { TimeLine } from '$lib/core/narration/timeLine.ts';
import { getMedia } from '$lib/data/media.ts';
import { readSpeech, readSpeeches, type KeptSound } from '$lib/data/speech.ts';
import { SoundFile } from './soundFile.ts';
import { readKeptSound } from './ownMedia.ts';

const toSamples = (seconds: number): number => Math.round(seconds * SAMPLE_RATE);

/** What sounds in a video: kept sentences by line id, recordings and clips by media name. */
export interface SoundPlan {
  scenes: readonly Scene[];
  timeLine: TimeLine;
  /** Name of the kept speech of a line. */
  speech: ReadonlyMap<string, string>;
  /** Kept sound of the clips before and after, in its place. */
  clips: { sound: string; at: number; seconds: number }[];
  /** Seconds that everything is moved by: the length of the clip before. */
  offset: number;
  music: string;
  musicLevel: number;
  /** Short sounds at their seconds of the time line. */
  sounds: readonly SoundCue[];
  seconds: number;
}

/** Sentences that are fetched together. */
const AT_ONCE = 8;

/**
 * Kept sentences at the rate of the mix, one at a time in the same memory: they do not overlap. They come
 * from the database a few at a time, the next ones while these are mixed.
 */
class Sentences {
  readonly #resampler = new PieceResampler();
  #key = '';
  #samples: Float32Array = new Float32Array();
  #here: ReadonlyMap<string, KeptSound> = new Map();
  #coming: Promise<ReadonlyMap<string, KeptSound>> | null = null;
  #asked = 0;

  /** @param order all of them, as they will be asked for */
  constructor(private readonly order: readonly string[]) {}

  async read(key: string): Promise<Float32Array> {
    if (key === this.#key) return this.#samples;
    if (!this.#here.has(key)) {
      this.#here = await (this.#coming ?? this.#fetch());
      this.#coming = this.#fetch();
    }
    const kept = this.#here.get(key) ?? (await readSpeech(key));
    this.#samples = kept
      ? this.#resampler.resample(kept.samples, kept.rate, SAMPLE_RATE)
      : new Float32Array();
    this.#key = key;
    return this.#samples;
  }

  #fetch(): Promise<ReadonlyMap<string, KeptSound>> {
    const keys = this.order.slice(this.#asked, (this.#asked += AT_ONCE));
    return readSpeeches(keys);
  }
}

/** The mix of a video, read piece by piece from what is kept. */
async function mixOf(plan: SoundPlan): Promise<Mix> {
  const pieces: AudioClip[] = [];
  const order = plan.timeLine.scenes.flatMap((scene, i) =>
    plan.scenes[i]?.recording ? [] : scene.lines.flatMap((l) => plan.speech.get(l.id) ?? [])
  );
  const sentences = new Sentences(order);
  let isStereo = false;
  for (const { sound, at, seconds } of plan.clips) {
    const kept = await getMedia(sound);
    if (!kept?.channels) continue;
    const { blob, channels } = kept;
    isStereo ||= channels === 2;
    pieces.push({
      at: toSamples(at),
      length: toSamples(seconds),
      read: (from, count) => readKeptSound({ blob, channels }, from, count)
    });
  }
  for (const [i, timed] of plan.timeLine.scenes.entries()) {
    const recording = plan.scenes[i]?.recording;
    const first = timed.lines[0];
    if (recording && first) {
      const kept = await getMedia(recording);
      if (!kept?.channels) continue;
      const { blob, channels } = kept;
      pieces.push({
        at: toSamples(plan.offset + first.start),
        length: Math.floor(blob.size / (channels * 2)),
        read: (from, count) => readKeptSound({ blob, channels }, from, count)
      });
      continue;
    }
    for (const line of timed.lines) {
      const key = plan.speech.get(line.id);
      if (!key) continue;
      pieces.push({
        at: toSamples(plan.offset + line.start),
        length: toSamples(line.end - line.start),
        read: async (from, count) => [(await sentences.read(key)).subarray(from, from + count)]
      });
    }
  }
  pieces.push(...soundPieces(plan));
  const bed = plan.music ? await bedOf(plan.music, plan.musicLevel) : null;
  if (bed) isStereo ||= bed.channels === 2;
  return {
    length: toSamples(plan.seconds),
    channels: isStereo ? 2 : 1,
    pieces: pieces.sort((a, b) => a.at - b.at),
    bed: bed && bed.bed
  };
}

/** Ratio at which a short sound is heard by itself, and while somebody speaks. */
const SOUND_ALONE = 0.8;
const SOUND_UNDER = 0.35;
/** Seconds in which the beginning of a short sound must not meet speech to be heard by itself. */
const SOUND_BEGINS = 0.3;

function soundPieces({ sounds, timeLine, offset }: SoundPlan): AudioClip[] {
  const lines = timeLine.scenes.flatMap((s) => s.lines);
  const made = new Map<string, Float32Array>();
  return sounds.map(({ at, sound }): AudioClip => {
    const isUnder = lines.some((l) => l.start < at + SOUND_BEGINS && at < l.end);
    const name = `${sound} ${isUnder}`;
    const gain = isUnder ? SOUND_UNDER : SOUND_ALONE;
    const samples = made.get(name) ?? makeShortSound(sound).map((s) => s * gain);
    made.set(name, samples);
    return {
      at: toSamples(offset + at),
      length: samples.length,
      isSpeech: false,
      read: (from, count) => Promise.resolve([samples.subarray(from, from + count)])
    };
  });
}

async function bedOf(name: string, level: number): Promise<{ bed: Bed; channels: number } | null> {
  const kept = await getMedia(name);
  if (!kept?.channels) return null;
  const { blob, channels } = kept;
  return {
    channels,
    bed: {
      length: Math.floor(blob.size / (channels * 2)),
      read: (from, count) => readKeptSound({ blob, channels }, from, count),
      level: Math.min(0, level + ALONE),
      underSpeech: level
    }
  };
}

/** Seconds that are enough to tell what the limiter takes from the whole. */
const ENOUGH = 40;
/** Of a long sound one stretch in so many is listened to when its gain is found. */
const sampleEvery = (length: number): number =>
  Math.max(1, Math.floor(length / SAMPLE_RATE / ENOUGH));

/** The finished sound of a video: mixed once into a file, then measured and levelled from there. */
export interface FinishedSound {
  channels: 1 | 2;
  blocks(): AsyncIterable<Float32Array[]>;
  close(): void;
}

/** @param goOn told the seconds that are mixed; throws when the work is to be stopped */
export async function finishSound(
  plan: SoundPlan,
  scratch: string,
  goOn: (seconds: number) => void
): Promise<FinishedSound> {
  const mix = await mixOf(plan);
  const file = await SoundFile.open(scratch, mix.channels);
  try {
    const meter = new LoudnessMeter(mix.channels);
    let at = 0;
    for await (const block of mixed(mix)) {
      goOn(at / SAMPLE_RATE);
      file.append(block);
      meter.push(block);
      at += block[0]?.length ?? 0;
    }
    const gain = await gainFor(
      () => file.blocks(sampleEvery(at)),
      mix.channels,
      meter.integrated()
    );
    return {
      channels: mix.channels,
      blocks: () => limited(file.blocks(), mix.channels, gain),
      close: () => file.close()
    };
  } catch (error) {
    file.close();
    throw error;
  }
}
