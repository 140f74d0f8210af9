import { softenEnds, spokenRange } from './speech.ts';
import { decibels, LoudnessMeter, ratioOf, SAMPLE_RATE } from './loudness.ts';

/** Loudness in LUFS that everything read by a person is brought to, so that one take is as loud as the next. */
const LOUDNESS = -20;
/** Highest sample of a take, as a ratio of full scale: what is left to the limiter of the mix. */
const HIGHEST = 0.98;
/** Decibels that a take is raised by at most: beyond, it would be noise that is heard. */
const MOST = 30;
/** Seconds under which loudness is not told by the standard's blocks. */
const SHORT = 0.5;
/** The quietest sample, as a ratio of full scale, in which somebody may be heard. */
const HEARD = 0.004;

/**
 * A sentence read aloud as it goes into a video: silence around it taken away, as loud as the others.
 * @param samples one channel of 48,000 a second; changed
 * @returns null where nothing is heard in it
 */
export function finishTake(samples: Float32Array): Float32Array | null {
  withoutRumble(samples);
  const { from, to } = spokenRange(samples, SAMPLE_RATE);
  const spoken = withoutClicks(samples.subarray(from, to));
  const peak = spoken.reduce((top, s) => Math.max(top, Math.abs(s)), 0);
  if (peak < HEARD) return null;
  const gain = Math.min(ratioOf(Math.min(MOST, LOUDNESS - loudnessOf(spoken))), HIGHEST / peak);
  for (let i = 0; i < spoken.length; i++) spoken[i]! *= gain;
  return softenEnds(spoken, SAMPLE_RATE);
}

/** Seconds that the sound of a key or a mouse lasts at most, and of silence between it and speech. */
const CLICK = 0.06;
const APART = 0.12;
/** Seconds over which loudness is looked at, and the part of the loudest of them that is silence. */
const FRAME = 0.01;
const QUIET = 0.03;

/** Keys and mouse buttons, at both ends, apart from what is said. */
function withoutClicks(samples: Float32Array): Float32Array {
  const size = Math.round(FRAME * SAMPLE_RATE);
  const levels = Array.from({ length: Math.ceil(samples.length / size) }, (_, i) =>
    samples.subarray(i * size, (i + 1) * size).reduce((top, s) => Math.max(top, Math.abs(s)), 0)
  );
  const limit = levels.toSorted((a, b) => b - a)[Math.floor(levels.length / 10)]! * QUIET;
  const isLoud = levels.map((level) => level > limit);
  const ends = (from: readonly boolean[]): number => {
    const first = from.indexOf(true);
    const quiet = from.indexOf(false, first);
    const speech = from.indexOf(true, quiet);
    const isClick =
      quiet - first <= CLICK / FRAME && speech - quiet >= APART / FRAME && speech > 0 && quiet > 0;
    return isClick ? Math.max(0, speech - 2) * size : 0;
  };
  const head = ends(isLoud);
  const tail = ends(isLoud.toReversed());
  return head + tail < samples.length ? samples.subarray(head, samples.length - tail) : samples;
}

/** Rumble below 40 Hz, and the constant that some microphones add: a blocker of one pole. */
function withoutRumble(samples: Float32Array): void {
  const pole = 1 - (2 * Math.PI * 40) / SAMPLE_RATE;
  let [before, out] = [samples[0] ?? 0, 0];
  for (let i = 0; i < samples.length; i++) {
    const here = samples[i]!;
    out = here - before + pole * out;
    before = here;
    samples[i] = out;
  }
}

function loudnessOf(samples: Float32Array): number {
  if (samples.length >= SHORT * SAMPLE_RATE) {
    const meter = new LoudnessMeter(1);
    meter.push([samples]);
    const measured = meter.integrated();
    if (Number.isFinite(measured)) return measured;
  }
  const power = samples.reduce((sum, s) => sum + s * s, 0) / (samples.length || 1);
  return decibels(Math.sqrt(power) + 1e-9);
}
