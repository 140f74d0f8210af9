import FFT from 'fft.js';

/** Samples a second that cepstra are taken from: all of speech is below half of it. */
export const CEPSTRA_RATE = 16_000;
/** Numbers of one row. */
export const COEFFICIENTS = 13;

const WINDOW = Math.round(0.032 * CEPSTRA_RATE);
const SIZE = 512;
const BANDS = 26;
const [LOWEST, HIGHEST] = [60, 7600];
const PRE_EMPHASIS = 0.97;
/** Decibels under the loudest tenth of all rows, below which a band counts as silence: there every room differs. */
const FLOOR = 25;

/** How a sound sounds, row by row. */
export interface Cepstra {
  /** Row by row, `COEFFICIENTS` numbers each, with mean 0 and variance 1 over all rows. */
  rows: Float32Array;
  /** Seconds from one row to the next. */
  hop: number;
  count: number;
  /** Loudness of each row in decibels, of no absolute meaning. */
  levels: Float32Array;
}

const toMel = (hertz: number): number => 2595 * Math.log10(1 + hertz / 700);
const fromMel = (mel: number): number => 700 * (10 ** (mel / 2595) - 1);

/** Triangles over the bins of the spectrum, evenly spaced in mel: first bin and weights of each. */
const triangles = Array.from({ length: BANDS }, (_, band) => {
  const step = (toMel(HIGHEST) - toMel(LOWEST)) / (BANDS + 1);
  const edge = (n: number) => (fromMel(toMel(LOWEST) + n * step) * SIZE) / CEPSTRA_RATE;
  const [left, middle, right] = [edge(band), edge(band + 1), edge(band + 2)];
  const first = Math.ceil(left);
  const weights: number[] = [];
  for (let bin = first; bin < right; bin++)
    weights.push(bin < middle ? (bin - left) / (middle - left) : (right - bin) / (right - middle));
  return { first, weights };
});
/** The window, and the cosines of the DCT of type II. */
const hamming = Float64Array.from(
  { length: WINDOW },
  (_, i) => 0.54 - 0.46 * Math.cos((2 * Math.PI * i) / (WINDOW - 1))
);
const cosines = Array.from({ length: COEFFICIENTS }, (_, k) =>
  Float64Array.from({ length: BANDS }, (_, n) => Math.cos((Math.PI * k * (n + 0.5)) / BANDS))
);

/**
 * Mel-frequency cepstral coefficients (Davis and Mermelstein 1980) of sound that comes piece by piece.
 * Rows are normalised over the whole when it ends, so that a voice, a room or a microphone weighs less than
 * what is said.
 */
export class CepstraReader {
  readonly #fft = new FFT(SIZE);
  readonly #windowed = new Float64Array(SIZE);
  readonly #spectrum = this.#fft.createComplexArray() as number[];
  readonly #bands: number[][] = [];
  #kept = new Float32Array(0);

  /** @param hop seconds from one row to the next, at most that of the window */
  constructor(private readonly hop: number) {}

  /** @param samples one channel of `CEPSTRA_RATE` samples a second, between -1 and 1 */
  push(samples: Float32Array): void {
    const line = new Float32Array(this.#kept.length + samples.length);
    line.set(this.#kept);
    line.set(samples, this.#kept.length);
    const step = Math.round(this.hop * CEPSTRA_RATE);
    let at = 0;
    for (; at + WINDOW <= line.length; at += step) this.#bands.push(this.#read(line, at));
    this.#kept = line.slice(at);
  }

  #read(line: Float32Array, at: number): number[] {
    const [windowed, spectrum] = [this.#windowed, this.#spectrum];
    for (let i = 0; i < WINDOW; i++) {
      const before = i === 0 ? line[at]! : line[at + i - 1]!;
      windowed[i] = (line[at + i]! - PRE_EMPHASIS * before) * hamming[i]!;
    }
    this.#fft.realTransform(spectrum, windowed);
    return triangles.map(({ first, weights }) => {
      let sum = 0;
      for (const [i, weight] of weights.entries()) {
        const bin = 2 * (first + i);
        sum += weight * (spectrum[bin]! ** 2 + spectrum[bin + 1]! ** 2);
      }
      return sum;
    });
  }

  /** The rows of all that came. */
  end(): Cepstra {
    if (this.#kept.length > 0) this.push(new Float32Array(WINDOW));
    const count = this.#bands.length;
    const levels = Float32Array.from(this.#bands, (bands) =>
      toDecibels(bands.reduce((sum, b) => sum + b, 0))
    );
    const loud = levels.toSorted()[Math.floor(count * 0.9)] ?? 0;
    const floor = 10 ** ((loud - FLOOR) / 10) / BANDS;
    const rows = new Float32Array(count * COEFFICIENTS);
    for (const [row, bands] of this.#bands.entries()) {
      const logs = bands.map((b) => Math.log(b + floor));
      for (const [k, waves] of cosines.entries()) {
        let sum = 0;
        for (let n = 0; n < BANDS; n++) sum += logs[n]! * waves[n]!;
        rows[row * COEFFICIENTS + k] = sum;
      }
    }
    normalise(rows, count);
    return { rows, hop: this.hop, count, levels };
  }
}

const toDecibels = (power: number): number => 10 * Math.log10(power + 1e-12);

function normalise(rows: Float32Array, count: number): void {
  for (let k = 0; k < COEFFICIENTS; k++) {
    let [sum, squares] = [0, 0];
    for (let at = k; at < rows.length; at += COEFFICIENTS) {
      sum += rows[at]!;
      squares += rows[at]! ** 2;
    }
    const mean = sum / (count || 1);
    const deviation = Math.sqrt(Math.max(1e-9, squares / (count || 1) - mean ** 2));
    for (let at = k; at < rows.length; at += COEFFICIENTS)
      rows[at] = (rows[at]! - mean) / deviation;
  }
}

/** Cepstra of a whole sound. */
export function cepstraOf(samples: Float32Array, hop: number): Cepstra {
  const reader = new CepstraReader(hop);
  reader.push(samples);
  return reader.end();
}

/** The same rows, the last one first. */
export function reversed(cepstra: Cepstra): Cepstra {
  const rows = new Float32Array(cepstra.rows.length);
  for (let i = 0; i < cepstra.count; i++) {
    const row = cepstra.rows.subarray(i * COEFFICIENTS, (i + 1) * COEFFICIENTS);
    rows.set(row, (cepstra.count - 1 - i) * COEFFICIENTS);
  }
  return { ...cepstra, rows, levels: cepstra.levels.toReversed() };
}
