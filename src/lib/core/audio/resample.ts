/** Zero crossings of the windowed sinc to each side. */
const CROSSINGS = 14;
/** Shape of the Kaiser window: side lobes about 80 dB down. */
const BETA = 8;

function bessel0(x: number): number {
  let sum = 1;
  let term = 1;
  for (let k = 1; k < 40; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

interface Bank {
  phases: Float64Array[];
  up: number;
  down: number;
  half: number;
}
const banks = new Map<string, Bank>();

/** The low-pass filter of a pair of rates, one row for each place that an output sample can have. */
function bankFor(from: number, to: number): Bank {
  const name = `${from} ${to}`;
  const kept = banks.get(name);
  if (kept) return kept;
  const divisor = gcd(from, to);
  const [up, down] = [to / divisor, from / divisor];
  // Going down, the filter is wider by as much, so that nothing above the new half rate is left.
  const cutoff = Math.min(1, to / from) * 0.97;
  // Even, so that a row's length divides by four.
  const half = 2 * Math.ceil(CROSSINGS / cutoff / 2);
  const phases = Array.from({ length: up }, (_, phase) => {
    const row = new Float64Array(half * 2);
    let sum = 0;
    for (let k = 0; k < row.length; k++) {
      const x = k - half + 1 - phase / up;
      const r = x / half;
      const window = Math.abs(r) < 1 ? bessel0(BETA * Math.sqrt(1 - r * r)) / bessel0(BETA) : 0;
      const angle = Math.PI * x * cutoff;
      row[k] = (angle === 0 ? 1 : Math.sin(angle) / angle) * window;
      sum += row[k] ?? 0;
    }
    return row.map((v) => v / sum);
  });
  const bank = { phases, up, down, half };
  banks.set(name, bank);
  return bank;
}

/** Output samples `first`, `first + up`, … where the row moves on by `down` samples each time. */
function everyFew(
  row: Float64Array,
  line: Float64Array,
  start: number,
  out: Float32Array,
  first: number,
  count: number,
  up: number,
  down: number
): void {
  for (let n = first, at = start; n < count; n += up, at += down) {
    // Four sums at a time: one alone would wait for itself at every step.
    let a = 0;
    let b = 0;
    let c = 0;
    let d = 0;
    for (let k = 0; k < row.length; k += 4) {
      a += row[k]! * line[at + k]!;
      b += row[k + 1]! * line[at + k + 1]!;
      c += row[k + 2]! * line[at + k + 2]!;
      d += row[k + 3]! * line[at + k + 3]!;
    }
    out[n] = a + b + c + d;
  }
}

/** The same where the row moves on by one sample: four outputs share what they read. */
function everySample(
  row: Float64Array,
  line: Float64Array,
  start: number,
  out: Float32Array,
  first: number,
  count: number,
  up: number
): void {
  let n = first;
  let at = start;
  for (; n + 3 * up < count; n += 4 * up, at += 4) {
    let a = 0;
    let b = 0;
    let c = 0;
    let d = 0;
    let x = line[at]!;
    let y = line[at + 1]!;
    let z = line[at + 2]!;
    for (let k = 0; k < row.length; k++) {
      const w = row[k]!;
      const newest = line[at + k + 3]!;
      a += w * x;
      b += w * y;
      c += w * z;
      d += w * newest;
      x = y;
      y = z;
      z = newest;
    }
    out[n] = a;
    out[n + up] = b;
    out[n + 2 * up] = c;
    out[n + 3 * up] = d;
  }
  everyFew(row, line, at, out, n, count, up, 1);
}

/** How many samples can be made of a line, where the first stands at `at` and `phase`. */
function readyFrom(length: number, at: number, phase: number, { up, down, half }: Bank): number {
  // Each needs `half` samples behind it.
  const ready = length - half - 1 - at;
  return ready < 0 ? 0 : Math.floor((ready * up + (up - 1 - phase)) / down) + 1;
}

/** Writes `count` output samples, the first of which stands at `at` and `phase` of the line. */
function filterInto(
  out: Float32Array,
  count: number,
  line: Float64Array,
  at: number,
  phase: number,
  { phases, up, down, half }: Bank
): void {
  // One row of the filter at a time, for all the places where it stands.
  for (let first = 0; first < Math.min(up, count); first++) {
    const steps = phase + first * down;
    const row = phases[steps % up]!;
    const start = at + Math.floor(steps / up) - half + 1;
    if (down === 1) everySample(row, line, start, out, first, count, up);
    else everyFew(row, line, start, out, first, count, up, down);
  }
}

/**
 * Changes the rate of sound that comes piece by piece, by a polyphase filter (windowed sinc, Kaiser
 * window; Crochiere and Rabiner 1983). Rates are whole numbers of samples a second.
 */
export class Resampler {
  readonly #bank: Bank;
  // Numbers of 64 bits: those of 32 would be changed into them at every step.
  #kept: Float64Array;
  /** Where the next output sample stands: whole input samples into `#kept`, and the phase. */
  #at: number;
  #phase = 0;

  constructor(from: number, to: number) {
    this.#bank = bankFor(from, to);
    // Silence before the first sample, as wide as the filter reaches back.
    this.#kept = new Float64Array(this.#bank.half - 1);
    this.#at = this.#bank.half - 1;
  }

  push(samples: Float32Array): Float32Array {
    const { up, down, half } = this.#bank;
    const line = new Float64Array(this.#kept.length + samples.length);
    line.set(this.#kept);
    line.set(samples, this.#kept.length);
    const count = readyFrom(line.length, this.#at, this.#phase, this.#bank);
    const out = new Float32Array(count);
    filterInto(out, count, line, this.#at, this.#phase, this.#bank);
    const steps = this.#phase + count * down;
    this.#at += Math.floor(steps / up);
    this.#phase = steps % up;
    const first = Math.max(0, Math.min(line.length, this.#at - half + 1));
    this.#kept = line.slice(first);
    this.#at -= first;
    return out;
  }

  /** What is left when no more comes. */
  flush(): Float32Array {
    return this.push(new Float32Array(this.#bank.half));
  }
}

/** Changes the rate of whole pieces, one after the other, in the same memory. */
export class PieceResampler {
  #line = new Float64Array(0);
  #out = new Float32Array(0);

  /**
   * @returns as long, within a sample, as it was; valid until the next call
   */
  resample(samples: Float32Array, from: number, to: number): Float32Array {
    if (from === to) return samples;
    const bank = bankFor(from, to);
    const { up, down, half } = bank;
    const length = Math.round((samples.length * up) / down);
    // Silence before and behind, as wide as the filter reaches.
    const needed = half - 1 + samples.length + half + 1;
    if (this.#line.length < needed) this.#line = new Float64Array(needed);
    if (this.#out.length < length) this.#out = new Float32Array(length);
    const line = this.#line.fill(0);
    line.set(samples, half - 1);
    filterInto(this.#out, length, line, half - 1, 0, bank);
    return this.#out.subarray(0, length);
  }
}
