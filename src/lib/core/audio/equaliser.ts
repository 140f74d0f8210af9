/** A filter: louder or softer by some decibels around a frequency, or from it on down or up. */
export interface Band {
  shape: 'peak' | 'low-shelf' | 'high-shelf';
  /** Hertz. */
  at: number;
  decibels: number;
}

/** Width of peaks, and slope of shelves, as their quality. */
const QUALITY = 0.8;

/** Coefficients of a biquad, a0 being 1: the audio EQ cookbook of R. Bristow-Johnson. */
function coefficients({ shape, at, decibels }: Band, rate: number): number[] {
  const a = 10 ** (decibels / 40);
  const w = (2 * Math.PI * Math.min(at, rate * 0.45)) / rate;
  const [sin, cos] = [Math.sin(w), Math.cos(w)];
  const alpha = sin / (2 * QUALITY);
  if (shape === 'peak')
    return divided([
      1 + alpha * a,
      -2 * cos,
      1 - alpha * a,
      1 + alpha / a,
      -2 * cos,
      1 - alpha / a
    ]);
  const root = 2 * Math.sqrt(a) * alpha;
  const s = shape === 'low-shelf' ? 1 : -1;
  return divided([
    a * (a + 1 - s * (a - 1) * cos + root),
    s * 2 * a * (a - 1 - s * (a + 1) * cos),
    a * (a + 1 - s * (a - 1) * cos - root),
    a + 1 + s * (a - 1) * cos + root,
    -s * 2 * (a - 1 + s * (a + 1) * cos),
    a + 1 + s * (a - 1) * cos - root
  ]);
}

const divided = ([b0, b1, b2, a0, a1, a2]: number[]): number[] =>
  [b0, b1, b2, a1, a2].map((c) => c! / a0!);

/** Passes a sound through filters, one after the other. Changes the samples given. */
export function equalise(samples: Float32Array, rate: number, bands: readonly Band[]): void {
  for (const band of bands) {
    const [b0, b1, b2, a1, a2] = coefficients(band, rate) as [
      number,
      number,
      number,
      number,
      number
    ];
    let [x1, x2, y1, y2] = [0, 0, 0, 0];
    for (let i = 0; i < samples.length; i++) {
      const x = samples[i]!;
      const y = b0 * x + b1 * x1 + b2 * x2 - a1 * y1 - a2 * y2;
      [x2, x1, y2, y1] = [x1, x, y1, y];
      samples[i] = y;
    }
  }
}

/** Echoes of a small room with soft walls: seconds and ratios of the first ones. */
const ECHOES: readonly (readonly [seconds: number, ratio: number])[] = [
  [0.0067, 0.14],
  [0.0113, 0.12],
  [0.0171, 0.1],
  [0.0239, 0.075],
  [0.0331, 0.055],
  [0.0463, 0.04]
];
/** How much of the treble each echo loses: a low-pass of one pole. */
const SOFT = 0.55;

/**
 * A sound as it is heard in a small room: its first echoes, without treble (early reflections as in
 * Moorer 1979).
 * @returns a little longer than it was
 */
export function inRoom(samples: Float32Array, rate: number): Float32Array {
  const longest = Math.ceil(ECHOES.at(-1)![0] * rate);
  const out = new Float32Array(samples.length + longest);
  out.set(samples);
  const soft = new Float32Array(samples.length);
  let low = 0;
  for (let i = 0; i < samples.length; i++) soft[i] = low += (1 - SOFT) * (samples[i]! - low);
  for (const [seconds, ratio] of ECHOES) {
    const late = Math.round(seconds * rate);
    for (let i = 0; i < soft.length; i++) out[i + late]! += ratio * soft[i]!;
  }
  return out;
}
