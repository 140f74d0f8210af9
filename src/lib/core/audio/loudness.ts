/** The rate, in samples a second, at which everything here is measured and mixed. */
export const SAMPLE_RATE = 48_000;

interface Biquad {
  b: readonly [number, number, number];
  a: readonly [number, number];
}
/** The two filters of ITU-R BS.1770-4, annex 1, tables 1 and 2, for 48,000 samples a second. */
const SHELF: Biquad = {
  b: [1.53512485958697, -2.69169618940638, 1.19839281085285],
  a: [-1.69065929318241, 0.73248077421585]
};
const HIGH_PASS: Biquad = { b: [1, -2, 1], a: [-1.99004745483398, 0.99007225036621] };

/** Gating blocks are 400 ms long and begin every 100 ms. */
const STEP = SAMPLE_RATE / 10;
const STEPS_A_BLOCK = 4;
const ABSOLUTE_GATE = -70;
const RELATIVE_GATE = -10;
const INAUDIBLE = 1e-30;
const loudnessOf = (meanSquare: number): number => -0.691 + 10 * Math.log10(meanSquare);

/**
 * Programme loudness by ITU-R BS.1770-4, fed piece by piece. Keeps one number for each tenth of a
 * second, so memory hardly grows with length. One or two channels of 48,000 samples a second; a
 * single channel counts once, as the standard has it.
 */
export class LoudnessMeter {
  readonly #filters: Filters[];
  #steps: number[] = [];
  #sum = 0;
  #inStep = 0;

  constructor(channels: number) {
    this.#filters = Array.from({ length: channels }, () => new Filters());
  }

  /** @param channels the same number of samples for each channel, between -1 and 1 */
  push(channels: readonly Float32Array[]): void {
    const count = channels[0]?.length ?? 0;
    let at = 0;
    while (at < count) {
      const end = Math.min(count, at + STEP - this.#inStep);
      for (const [c, filters] of this.#filters.entries()) {
        this.#sum += filters.power(channels[c] ?? new Float32Array(count), at, end);
      }
      this.#inStep += end - at;
      at = end;
      if (this.#inStep === STEP) {
        this.#steps.push(this.#sum / STEP);
        this.#sum = 0;
        this.#inStep = 0;
      }
    }
  }

  /** Integrated loudness in LUFS; -Infinity for silence or for less than 400 ms. */
  integrated(): number {
    const blocks: number[] = [];
    for (let i = STEPS_A_BLOCK; i <= this.#steps.length; i++) {
      let sum = 0;
      for (let k = i - STEPS_A_BLOCK; k < i; k++) sum += this.#steps[k] ?? 0;
      blocks.push(sum / STEPS_A_BLOCK);
    }
    const heard = blocks.filter((p) => loudnessOf(p) > ABSOLUTE_GATE);
    const gate = loudnessOf(mean(heard)) + RELATIVE_GATE;
    return loudnessOf(mean(heard.filter((p) => loudnessOf(p) > gate)));
  }
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, v) => sum + v, 0) / (values.length || 1);

/** Both filters of one channel, in direct form I with one shared delay line between them. */
class Filters {
  #x1 = 0;
  #x2 = 0;
  #y1 = 0;
  #y2 = 0;
  #z1 = 0;
  #z2 = 0;

  /** Sum of the squares of the filtered samples. */
  power(samples: Float32Array, from: number, to: number): number {
    const [b0, b1, b2] = SHELF.b;
    const [a1, a2] = SHELF.a;
    const [c1, c2] = HIGH_PASS.a;
    let sum = 0;
    for (let i = from; i < to; i++) {
      const x = samples[i] ?? 0;
      const y = b0 * x + b1 * this.#x1 + b2 * this.#x2 - a1 * this.#y1 - a2 * this.#y2;
      const z = y - 2 * this.#y1 + this.#y2 - c1 * this.#z1 - c2 * this.#z2;
      this.#x2 = this.#x1;
      this.#x1 = x;
      this.#y2 = this.#y1;
      this.#y1 = y;
      this.#z2 = this.#z1;
      this.#z1 = z;
      sum += z * z;
    }
    this.#rest();
    return sum;
  }

  /** In silence the filters die away into numbers so small that processors take many times as long for them. */
  #rest(): void {
    if (Math.abs(this.#y1) < INAUDIBLE && Math.abs(this.#y2) < INAUDIBLE) this.#y1 = this.#y2 = 0;
    if (Math.abs(this.#z1) < INAUDIBLE && Math.abs(this.#z2) < INAUDIBLE) this.#z1 = this.#z2 = 0;
  }
}

export const decibels = (ratio: number): number => 20 * Math.log10(ratio);
export const ratioOf = (db: number): number => 10 ** (db / 20);
