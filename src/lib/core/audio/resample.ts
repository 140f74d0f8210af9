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
    const { phases, up, down, half } = this.#bank;
    const line = new Float64Array(this.#kept.length + samples.length);
    line.set(this.#kept);
    line.set(samples, this.#kept.length);
    const out = new Float32Array(Math.ceil(((line.length - this.#at) * up) / down) + 1);
    let count = 0;
    let at = this.#at;
    let phase = this.#phase;
    while (at + half < line.length) {
      const row = phases[phase]!;
      const first = at - half + 1;
      // Four sums at a time: one alone would wait for itself at every step.
      let a = 0;
      let b = 0;
      let c = 0;
      let d = 0;
      for (let k = 0; k < row.length; k += 4) {
        const i = first + k;
        a += row[k]! * line[i]!;
        b += row[k + 1]! * line[i + 1]!;
        c += row[k + 2]! * line[i + 2]!;
        d += row[k + 3]! * line[i + 3]!;
      }
      out[count++] = a + b + c + d;
      phase += down;
      while (phase >= up) {
        phase -= up;
        at++;
      }
    }
    this.#at = at;
    this.#phase = phase;
    const first = Math.max(0, Math.min(line.length, this.#at - half + 1));
    this.#kept = line.slice(first);
    this.#at -= first;
    return out.subarray(0, count);
  }

  /** What is left when no more comes. */
  flush(): Float32Array {
    return this.push(new Float32Array(this.#bank.half));
  }
}

/** One piece of sound at another rate; as long, within a sample, as it was. */
export function resample(samples: Float32Array, from: number, to: number): Float32Array {
  if (from === to) return samples;
  const resampler = new Resampler(from, to);
  const [body, rest] = [resampler.push(samples), resampler.flush()];
  const length = Math.round((samples.length * to) / from);
  const out = new Float32Array(length);
  out.set(body.subarray(0, length));
  out.set(rest.subarray(0, Math.max(0, length - body.length)), body.length);
  return out;
}
