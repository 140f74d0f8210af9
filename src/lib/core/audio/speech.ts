/** Below this part of the loudest tenth, a frame is silence. */
const QUIET = 0.02;
const FRAME = 0.005;
/** Kept before and after, in seconds: soft consonants are quieter than they sound. */
const MARGIN = 0.02;
const FADE = 0.004;

/** Where, in samples, speech begins and ends; all of it where nothing is heard. */
export function spokenRange(samples: Float32Array, rate: number): { from: number; to: number } {
  const size = Math.max(1, Math.round(FRAME * rate));
  const levels: number[] = [];
  for (let i = 0; i < samples.length; i += size) {
    let sum = 0;
    const end = Math.min(samples.length, i + size);
    for (let k = i; k < end; k++) sum += (samples[k] ?? 0) ** 2;
    levels.push(Math.sqrt(sum / (end - i)));
  }
  const loud = [...levels].sort((a, b) => b - a)[Math.floor(levels.length / 10)] ?? 0;
  const heard = (level: number) => level > loud * QUIET;
  const first = levels.findIndex(heard);
  if (loud === 0 || first < 0) return { from: 0, to: samples.length };
  const last = levels.findLastIndex(heard);
  const margin = Math.round(MARGIN * rate);
  return {
    from: Math.max(0, first * size - margin),
    to: Math.min(samples.length, (last + 1) * size + margin)
  };
}

/** Fades the first and last few milliseconds, so that no joint clicks. Changes the samples given. */
export function softenEnds(samples: Float32Array, rate: number): Float32Array {
  const length = Math.min(Math.round(FADE * rate), samples.length >> 1);
  for (let i = 0; i < length; i++) {
    const gain = 0.5 - 0.5 * Math.cos((Math.PI * (i + 0.5)) / length);
    samples[i] = (samples[i] ?? 0) * gain;
    const last = samples.length - 1 - i;
    samples[last] = (samples[last] ?? 0) * gain;
  }
  return samples;
}

/** Samples between -1 and 1 as whole numbers of 16 bits, and back. */
export const toInt16 = (samples: Float32Array): Int16Array<ArrayBuffer> => {
  const out = new Int16Array(samples.length);
  for (let i = 0; i < out.length; i++)
    out[i] = Math.max(-32768, Math.min(32767, Math.round((samples[i] ?? 0) * 32767)));
  return out;
};
export function fromInt16(samples: Int16Array): Float32Array<ArrayBuffer> {
  // A loop: `from` with a function takes fifteen times as long.
  const out = new Float32Array(samples.length);
  for (let i = 0; i < out.length; i++) out[i] = samples[i]! / 32767;
  return out;
}
