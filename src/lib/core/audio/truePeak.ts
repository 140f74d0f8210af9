/** The four phases of the interpolation filter of ITU-R BS.1770-4, annex 2; the last two mirror the first. */
const PHASE_0 = [
  0.001708984375, 0.010986328125, -0.0196533203125, 0.033203125, -0.0594482421875, 0.1373291015625,
  0.97216796875, -0.102294921875, 0.047607421875, -0.026611328125, 0.014892578125, -0.00830078125
];
const PHASE_1 = [
  -0.0291748046875, 0.029296875, -0.0517578125, 0.089111328125, -0.16650390625, 0.465087890625,
  0.77978515625, -0.2003173828125, 0.1015625, -0.0582275390625, 0.0330810546875, -0.0189208984375
];
const PHASES = [PHASE_0, PHASE_1, [...PHASE_1].reverse(), [...PHASE_0].reverse()].map(
  (p) => new Float64Array(p)
);
const TAPS = 12;
/** The most that a phase can raise what goes in: the sum of its taps without their signs. */
const MAX_GAIN = Math.max(...PHASES.map((p) => p.reduce((sum, tap) => sum + Math.abs(tap), 0)));
/** Samples by which a peak is told after the sample it belongs to. */
export const PEAK_DELAY = TAPS / 2;

/**
 * The highest value between the samples around each sample of one channel, by four-fold
 * oversampling. It is fed piece by piece and tells what came `PEAK_DELAY` samples before.
 */
export class PeakTracker {
  #kept = new Float32Array(TAPS - 1);
  #line = new Float32Array(0);

  /**
   * Raises each of `peaks` to the height around its sample.
   * @param above only heights above this level matter; what lies far under it is passed over,
   * as the filter cannot raise it so far
   */
  raise(samples: Float32Array, peaks: Float32Array, above: number): void {
    const length = TAPS - 1 + samples.length;
    if (this.#line.length < length) this.#line = new Float32Array(length);
    const line = this.#line;
    line.set(this.#kept);
    line.set(samples, TAPS - 1);
    this.#kept = line.slice(samples.length, length);
    const half = above / MAX_GAIN;
    let lastLoud = -TAPS;
    for (let i = 0; i < TAPS - 1; i++) if (Math.abs(line[i]!) > half) lastLoud = i;
    for (let i = 0; i < samples.length; i++) {
      const newest = i + TAPS - 1;
      if (Math.abs(line[newest]!) > half) lastLoud = newest;
      if (newest - lastLoud >= TAPS) continue;
      let peak = Math.max(
        Math.abs(line[newest - PEAK_DELAY]!),
        Math.abs(line[newest - PEAK_DELAY + 1]!)
      );
      for (const phase of PHASES) {
        let sum = 0;
        for (let k = 0; k < TAPS; k++) sum += phase[k]! * line[newest - k]!;
        if (sum < 0) sum = -sum;
        if (sum > peak) peak = sum;
      }
      if (peak > peaks[i]!) peaks[i] = peak;
    }
  }
}
