import { SAMPLE_RATE } from '../loudness.ts';

/** How a tone sounds: its overtones, and how it comes and goes. */
export interface Timbre {
  /** Strength of the fundamental and each overtone above it. */
  partials: readonly number[];
  /** Seconds until it is at its loudest, and until it has fallen to a third. */
  attack: number;
  decay: number;
  /** How much sooner an overtone fades than the one below it: 0 all alike. */
  damping?: number;
}

/** Frequency of a note of MIDI's numbering (69 is A at 440 Hz), in equal temperament. */
export const frequencyOf = (note: number): number => 440 * 2 ** ((note - 69) / 12);

/**
 * Adds a tone to a buffer of 48,000 samples a second.
 * @param at sample that it begins with
 * @param level amplitude of the fundamental, as a ratio of full scale
 * @param isLooped whether what lies beyond the end goes on at the beginning, so that the buffer can be
 *   played again and again without a seam
 */
export function addTone(
  buffer: Float32Array,
  at: number,
  frequency: number,
  level: number,
  { partials, attack, decay, damping = 0 }: Timbre,
  isLooped = false
): void {
  const rising = Math.max(1, Math.round(attack * SAMPLE_RATE));
  for (const [n, strength] of partials.entries()) {
    const hertz = frequency * (n + 1);
    if (strength === 0 || hertz > SAMPLE_RATE / 2.2) continue;
    const fade = decay / (1 + damping * n);
    const room = isLooped ? buffer.length : buffer.length - at;
    const length = Math.min(room, rising + Math.round(fade * 6 * SAMPLE_RATE));
    const step = (2 * Math.PI * hertz) / SAMPLE_RATE;
    // A sine by its recurrence: no sine is reckoned for each sample.
    const turn = 2 * Math.cos(step);
    let [before, now] = [Math.sin(-step), 0];
    const falling = Math.exp(-1 / (fade * SAMPLE_RATE));
    let envelope = 1;
    for (let i = 0; i < length; i++) {
      const gain =
        i < rising ? 0.5 - 0.5 * Math.cos((Math.PI * i) / rising) : (envelope *= falling);
      const to = (at + i) % buffer.length;
      buffer[to] = buffer[to]! + now * gain * level * strength;
      [before, now] = [now, turn * now - before];
    }
  }
}

/** Numbers between -1 and 1, the same each time (mulberry32): hiss without chance. */
export function noise(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 31 - 1;
  };
}

/** A breath of hiss that swells and goes, its middle frequency moving from one to another. */
export function addSwish(
  buffer: Float32Array,
  at: number,
  seconds: number,
  [from, to]: readonly [number, number],
  level: number
): void {
  const draw = noise(at + 1);
  const length = Math.min(buffer.length - at, Math.round(seconds * SAMPLE_RATE));
  // A resonance of two poles whose frequency is moved along (state variable filter).
  let [low, band] = [0, 0];
  for (let i = 0; i < length; i++) {
    const share = i / length;
    const f = 2 * Math.sin((Math.PI * (from + (to - from) * share)) / SAMPLE_RATE);
    low += f * band;
    const high = draw() - low - 0.6 * band;
    band += f * high;
    const gain = Math.sin(Math.PI * share) ** 2;
    buffer[at + i] = buffer[at + i]! + band * gain * level;
  }
}
