import { z } from 'zod';
import { SAMPLE_RATE } from '../loudness.ts';
import { addTone, frequencyOf, type Timbre } from './tone.ts';

export const bedNameSchema = z.enum(['quiet', 'bright', 'steady']);
export type BedName = z.infer<typeof bedNameSchema>;

const PAD: Timbre = { partials: [1, 0.4, 0.2, 0.1], attack: 1.4, decay: 1.6, damping: 0.3 };
const PLUCK: Timbre = { partials: [1, 0.45, 0.28, 0.16], attack: 0.003, decay: 0.3, damping: 0.6 };
const BASS: Timbre = { partials: [1, 0.3, 0.1], attack: 0.02, decay: 0.5, damping: 0.4 };

interface Score {
  /** Beats a minute, and beats to a chord. */
  tempo: number;
  beats: number;
  chords: readonly (readonly number[])[];
  /** What is played of a chord: beats after it began, which of its notes, octaves up, how loud, and how. */
  pattern: readonly { at: number; note: number; up: number; level: number; timbre: Timbre }[];
}

/** Chords as MIDI's numbers, from the lowest note up. */
const MILD = [
  [48, 55, 60, 64],
  [45, 52, 57, 60],
  [41, 48, 53, 57],
  [43, 50, 55, 59]
];
const OPEN = [
  [50, 57, 62, 66],
  [47, 54, 59, 62],
  [43, 50, 55, 59],
  [45, 52, 57, 61]
];

const pad = (level: number) =>
  [0, 1, 2, 3].map((note) => ({
    at: note * 0.06,
    note,
    up: 0,
    level: level / (1 + note * 0.3),
    timbre: PAD
  }));
const plucks = (order: readonly number[], apart: number, level: number) =>
  order.map((note, i) => ({
    at: i * apart,
    note: note % 4,
    up: note > 3 ? 2 : 1,
    level,
    timbre: PLUCK
  }));

const SCORES: Readonly<Record<BedName, Score>> = {
  quiet: {
    tempo: 60,
    beats: 8,
    chords: MILD,
    pattern: [...pad(0.5), ...plucks([3, 2, 5], 2.5, 0.1)]
  },
  bright: {
    tempo: 96,
    beats: 8,
    chords: OPEN,
    pattern: [...pad(0.16), ...plucks([1, 2, 3, 5, 3, 2, 4, 2], 1, 0.32)]
  },
  steady: {
    tempo: 84,
    beats: 8,
    chords: MILD,
    pattern: [
      ...pad(0.24),
      ...[0, 2, 3, 4, 6, 7].map((at) => ({ at, note: 0, up: 0, level: 0.42, timbre: BASS })),
      ...plucks([2, 3, 2, 3], 2, 0.14)
    ]
  }
};

/** Loudest sample of a bed, as a ratio of full scale. */
const PEAK = 0.5;
/** Cents by which the two sides differ, which makes it wide. */
const APART = 4;

/**
 * A bed of music, reckoned: two channels of 48,000 samples a second, half a minute that can be played
 * again and again without a seam.
 */
export function makeBed(name: BedName): [Float32Array<ArrayBuffer>, Float32Array<ArrayBuffer>] {
  const { tempo, beats, chords, pattern } = SCORES[name];
  const beat = (60 / tempo) * SAMPLE_RATE;
  const length = Math.round(beat * beats * chords.length);
  const sides = [-1, 1].map((side) => {
    const buffer = new Float32Array(length);
    for (const [c, chord] of chords.entries())
      for (const { at, note, up, level, timbre } of pattern)
        addTone(
          buffer,
          Math.round((c * beats + at) * beat),
          frequencyOf((chord[note] ?? chord[0]!) + 12 * up + (side * APART) / 200),
          level,
          timbre,
          true
        );
    return buffer;
  });
  const loudest =
    Math.max(...sides.map((s) => s.reduce((top, x) => Math.max(top, Math.abs(x)), 0))) || 1;
  for (const side of sides) for (let i = 0; i < length; i++) side[i]! *= PEAK / loudest;
  return sides as [Float32Array<ArrayBuffer>, Float32Array<ArrayBuffer>];
}
