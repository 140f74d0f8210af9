import { Limiter } from './limiter.ts';
import { LoudnessMeter, ratioOf, SAMPLE_RATE } from './loudness.ts';

/** A piece of sound in its place. Times are samples at `SAMPLE_RATE`. */
export interface AudioClip {
  at: number;
  length: number;
  /** Music gives way to speech, and to nothing else. */
  isSpeech?: boolean;
  /**
   * Part of it, one array a channel, fewer than asked for at its end; asked in rising order. May
   * use the same memory for the next read of any piece.
   */
  read(from: number, count: number): Promise<Float32Array[]>;
}

/** Music under everything, lowered where there is speech. It begins anew when it ends. */
export interface Bed {
  /** Samples of one channel. */
  length: number;
  /** Part of it, one array a channel; never beyond its end. */
  read(from: number, count: number): Promise<Float32Array[]>;
  /** Decibels against how it comes, where nobody speaks and where somebody does. */
  level: number;
  underSpeech: number;
}

/** Decibels that music is louder where nobody speaks. */
export const ALONE = 9;
/** Samples that are mixed at a time: one second. */
const BLOCK = SAMPLE_RATE;
/** Samples over which music gives way to speech, and comes back after it. */
const YIELD = Math.round(0.35 * SAMPLE_RATE);
/** Music is lowered through pauses shorter than this. */
const SHORT_PAUSE = Math.round(1.5 * SAMPLE_RATE);

export interface Mix {
  /** Length in samples, channels, and what sounds where. Pieces are in the order of their times. */
  length: number;
  channels: 1 | 2;
  pieces: readonly AudioClip[];
  bed: Bed | null;
}

/** The mix second by second, each in the same memory: what is to be kept is copied. */
export async function* mixed(mix: Mix): AsyncGenerator<Float32Array[]> {
  const { length, channels, pieces, bed } = mix;
  const gain = bed ? bedGain(pieces, bed) : null;
  const memory = Array.from({ length: channels }, () => new Float32Array(BLOCK));
  let next = 0;
  let sounding: AudioClip[] = [];
  for (let from = 0; from < length; from += BLOCK) {
    const to = Math.min(length, from + BLOCK);
    for (let piece = pieces[next]; piece && piece.at < to; piece = pieces[++next])
      sounding.push(piece);
    const out = memory.map((channel) => channel.fill(0).subarray(0, to - from));
    for (const piece of sounding) {
      const first = Math.max(0, from - piece.at);
      const at = Math.max(0, piece.at - from);
      addInto(out, await piece.read(first, to - from - at), at);
    }
    sounding = sounding.filter(({ at, length }) => at + length > to);
    if (bed && bed.length > 0 && gain) await addBed(out, bed, from, gain, length);
    yield out;
  }
}

function addInto(out: Float32Array[], samples: readonly Float32Array[], at: number): void {
  for (const [c, target] of out.entries()) {
    // One channel sounds on both sides; two on one side are halved.
    const sources = samples.length > 1 && out.length === 1 ? samples : [samples[c] ?? samples[0]!];
    const share = 1 / sources.length;
    for (const source of sources) {
      const count = Math.min(source.length, target.length - at);
      for (let i = 0; i < count; i++) target[at + i]! += source[i]! * share;
    }
  }
}

async function addBed(
  out: Float32Array[],
  bed: Bed,
  from: number,
  gain: (at: number) => number,
  length: number
): Promise<void> {
  const count = out[0]?.length ?? 0;
  for (let done = 0; done < count;) {
    const start = (from + done) % bed.length;
    const music = await bed.read(start, Math.min(count - done, bed.length - start));
    const got = music[0]?.length ?? 0;
    if (got === 0) return;
    for (let i = 0; i < got; i++) {
      const at = from + done + i;
      // The bed fades in and out with the whole.
      const level = gain(at) * Math.min(1, at / YIELD, (length - at) / (YIELD * 4));
      for (const [c, target] of out.entries())
        target[done + i]! += (music[c] ?? music[0])![i]! * level;
    }
    done += got;
  }
}

/** The gain of the bed at a sample; asked in rising order. */
function bedGain(pieces: readonly AudioClip[], bed: Bed): (at: number) => number {
  const spans: { from: number; to: number }[] = [];
  for (const { at, length, isSpeech = true } of pieces) {
    if (!isSpeech) continue;
    const last = spans.at(-1);
    if (last && at - last.to < SHORT_PAUSE) last.to = Math.max(last.to, at + length);
    else spans.push({ from: at, to: at + length });
  }
  const [loud, soft] = [ratioOf(bed.level), ratioOf(bed.underSpeech)];
  let near = 0;
  return (at) => {
    while (near < spans.length - 1 && at > (spans[near]?.to ?? 0) + YIELD) near++;
    const span = spans[near];
    if (!span) return loud;
    const away = at < span.from ? span.from - at : Math.max(0, at - span.to);
    const share = Math.min(1, away / YIELD);
    return soft + (loud - soft) * share;
  };
}

/** Loudness that is aimed at (LUFS), and the highest true peak (dBTP). The codec may add a little. */
export const TARGET_LOUDNESS = -16;
export const HIGHEST_PEAK = -1.6;
const CLOSE_ENOUGH = 0.3;

/**
 * The gain that brings a sound to the target with the limiter at work behind it.
 * @param blocks gives the sound from its beginning, each time it is called; of a long one some
 *   stretches are enough, as only what the limiter takes is told by them
 * @param loudness of the whole sound as it comes, in LUFS
 * @returns 1 where nothing is heard
 */
export async function gainFor(
  blocks: () => AsyncIterable<Float32Array[]>,
  channels: number,
  loudness: number
): Promise<number> {
  if (!Number.isFinite(loudness)) return 1;
  const before = new LoudnessMeter(channels);
  let decibels = TARGET_LOUDNESS - loudness;
  // What the limiter takes is given back; twice is enough even for sound with many peaks.
  for (let round = 0; round < 2; round++) {
    const after = new LoudnessMeter(channels);
    const limiter = new Limiter(channels, ratioOf(HIGHEST_PEAK));
    for await (const block of blocks()) {
      if (round === 0) before.push(block);
      after.push(limiter.push(block, ratioOf(decibels)));
    }
    after.push(limiter.flush());
    const taken = before.integrated() + decibels - after.integrated();
    const off = TARGET_LOUDNESS - (loudness + decibels - taken);
    if (!Number.isFinite(off) || Math.abs(off) < CLOSE_ENOUGH) break;
    decibels += off;
  }
  return ratioOf(decibels);
}

/** A sound at a gain, its true peaks held under the highest that is allowed. */
export async function* limited(
  blocks: AsyncIterable<Float32Array[]>,
  channels: number,
  gain: number
): AsyncGenerator<Float32Array[]> {
  const limiter = new Limiter(channels, ratioOf(HIGHEST_PEAK));
  for await (const block of blocks) yield limiter.push(block, gain);
  yield limiter.flush();
}
