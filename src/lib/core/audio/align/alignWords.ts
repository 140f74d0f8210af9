import { cepstraOf, reversed } from './cepstra.ts';
import { meanDistance, secondsAlong, warp } from './warp.ts';

/** A sentence as a voice says it that tells its words. */
export interface Reference {
  /** Samples of `CEPSTRA_RATE` a second. */
  samples: Float32Array;
  /** Seconds at which its words begin. */
  words: readonly number[];
}

/** Seconds from one row to the next: within one sentence they may be close. */
const HOP = 0.01;
/** Seconds by which a reading may run ahead of a voice within one sentence. */
const MOST_REACH = 4;

/** Where the words of a sentence are in a recording of it. */
export interface FoundWords {
  /** Seconds at which they begin, rising; empty where no voice was given. */
  words: number[];
  /** It sounds no more like the sentence than like its sounds in another order: something else may have been read. */
  isDoubtful: boolean;
}

/**
 * How much nearer than the sentence backwards it has to be, as a ratio. Of sentences of unscripted talks that
 * two of flite's voices read, nine in ten were below, and of others of the same length nine in ten above.
 */
const DOUBTFUL = 0.96;

/**
 * When each word of a sentence begins in a recording of it, by laying it along voices whose words are known;
 * the nearest of them is believed.
 * @param samples of `CEPSTRA_RATE` a second
 */
export function alignWords(samples: Float32Array, voices: readonly Reference[]): FoundWords {
  const read = cepstraOf(samples, HOP);
  const reach = Math.min(MOST_REACH, Math.max(1, 0.4 * read.count * HOP));
  let least = Infinity;
  let found: FoundWords = { words: [], isDoubtful: false };
  for (const voice of voices) {
    const said = cepstraOf(voice.samples, HOP);
    const path = warp(said, read, reach);
    const distance = meanDistance(path);
    if (distance >= least) continue;
    least = distance;
    const foil = meanDistance(warp(reversed(said), read, reach));
    const words = voice.words.map((at) => secondsAlong(path, said, read, at));
    // What is laid on the same row begins with it.
    const rising = words.map((at, i) => Math.max(0, at, ...words.slice(0, i)));
    found = { words: rising, isDoubtful: distance > DOUBTFUL * foil };
  }
  return found;
}
