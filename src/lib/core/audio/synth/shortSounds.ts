import { z } from 'zod';
import { SAMPLE_RATE } from '../loudness.ts';
import { addSwish, addTone, frequencyOf, type Timbre } from './tone.ts';

export const shortSoundSchema = z.enum([
  'tick',
  'tap',
  'knock',
  'pluck',
  'drop',
  'chime',
  'bell',
  'shimmer',
  'rise',
  'fall',
  'swish',
  'breath'
]);
export type ShortSound = z.infer<typeof shortSoundSchema>;

const WOOD: Timbre = { partials: [1, 0.35, 0, 0.2], attack: 0.001, decay: 0.025, damping: 0.8 };
const STRING: Timbre = {
  partials: [1, 0.5, 0.33, 0.2, 0.12],
  attack: 0.002,
  decay: 0.2,
  damping: 0.5
};
const METAL: Timbre = {
  partials: [1, 0, 0.6, 0, 0.35, 0, 0.2],
  attack: 0.002,
  decay: 0.4,
  damping: 0.25
};
const AIR: Timbre = { partials: [1, 0.15], attack: 0.06, decay: 0.16 };

/** Loudest sample of each, as a ratio of full scale. */
const PEAK = 0.3;

/** Notes one after the other. */
function notes(
  seconds: number,
  timbre: Timbre,
  played: readonly (readonly [at: number, note: number])[]
): Float32Array<ArrayBuffer> {
  const buffer = new Float32Array(Math.round(seconds * SAMPLE_RATE));
  for (const [at, note] of played)
    addTone(buffer, Math.round(at * SAMPLE_RATE), frequencyOf(note), 1, timbre);
  return buffer;
}

function swish(seconds: number, way: readonly [number, number]): Float32Array<ArrayBuffer> {
  const buffer = new Float32Array(Math.round(seconds * SAMPLE_RATE));
  addSwish(buffer, 0, seconds, way, 1);
  return buffer;
}

const MADE: Readonly<Record<ShortSound, () => Float32Array<ArrayBuffer>>> = {
  tick: () => notes(0.16, WOOD, [[0, 96]]),
  tap: () => notes(0.18, WOOD, [[0, 81]]),
  knock: () =>
    notes(0.34, WOOD, [
      [0, 62],
      [0.11, 60]
    ]),
  pluck: () =>
    notes(0.9, STRING, [
      [0, 69],
      [0.09, 76]
    ]),
  drop: () =>
    notes(0.5, STRING, [
      [0, 81],
      [0.08, 74]
    ]),
  chime: () =>
    notes(1.3, METAL, [
      [0, 79],
      [0.12, 84]
    ]),
  bell: () => notes(1.6, METAL, [[0, 72]]),
  shimmer: () =>
    notes(1.6, METAL, [
      [0, 76],
      [0.09, 79],
      [0.18, 83],
      [0.27, 88]
    ]),
  rise: () =>
    notes(0.8, AIR, [
      [0, 64],
      [0.1, 67],
      [0.2, 71]
    ]),
  fall: () =>
    notes(0.8, AIR, [
      [0, 71],
      [0.1, 67],
      [0.2, 64]
    ]),
  swish: () => swish(0.45, [700, 3800]),
  breath: () => swish(0.8, [1800, 500])
};

/** A short sound, reckoned: one channel of 48,000 samples a second that begins and ends in silence. */
export function makeShortSound(name: ShortSound): Float32Array<ArrayBuffer> {
  const samples = MADE[name]();
  const fade = Math.min(samples.length, Math.round(0.03 * SAMPLE_RATE));
  for (let i = 0; i < fade; i++) samples[samples.length - 1 - i]! *= i / fade;
  const loudest = samples.reduce((top, s) => Math.max(top, Math.abs(s)), 0) || 1;
  return samples.map((s) => (s * PEAK) / loudest);
}
