import { SAMPLE_RATE } from './loudness.ts';
import { PEAK_DELAY, PeakTracker } from './truePeak.ts';

/** Samples that the gain is turned down ahead of a peak. */
const AHEAD = Math.round(0.004 * SAMPLE_RATE);
/** Share of the way back to full gain that is gone each sample: about a tenth of a second in all. */
const RELEASE = 1 - Math.exp(-1 / (0.08 * SAMPLE_RATE));

/** From here on the gain is taken as full. */
const NEARLY = 0.997;

/**
 * A gain that sees peaks coming: what is said stays under a true peak without clicks. The gain
 * needed is held for as long as it looks ahead and then smoothed over the same time, so it is never
 * above what any sample needs. Fed piece by piece; what comes out is as long as what goes in, once
 * flushed.
 */
export class Limiter {
  readonly #trackers: PeakTracker[];
  readonly #delay: Float32Array[];
  #delayAt = 0;
  /** Sliding minimum: sample numbers and gains, the gains rising. */
  #minima: { at: number; gain: number }[] = [];
  #held = 1;
  readonly #window = new Float64Array(AHEAD).fill(1);
  #windowAt = 0;
  #windowSum = AHEAD;
  #in = 0;
  #out = 0;
  #gain = 1;
  /** Kept from piece to piece, so that none is made for each. */
  #peaks = new Float32Array(0);
  #gainsKept = new Float64Array(0);
  readonly #made: Float32Array[];

  /**
   * @param ceiling highest true peak, as a ratio of full scale
   */
  constructor(
    channels: number,
    private readonly ceiling: number
  ) {
    this.#trackers = Array.from({ length: channels }, () => new PeakTracker());
    this.#delay = Array.from({ length: channels }, () => new Float32Array(AHEAD + PEAK_DELAY));
    this.#made = Array.from({ length: channels }, () => new Float32Array(0));
  }

  /**
   * @param gain what every sample is multiplied by before it is limited
   * @returns valid until the next call
   */
  push(channels: readonly Float32Array[], gain: number): Float32Array[] {
    this.#gain = gain;
    return this.#run(channels, channels[0]?.length ?? 0);
  }

  /** What is still in the delay. */
  flush(): Float32Array[] {
    const rest = this.#in - this.#out;
    return this.#run(
      this.#trackers.map(() => new Float32Array(AHEAD + PEAK_DELAY)),
      AHEAD + PEAK_DELAY
    ).map((channel) => channel.subarray(channel.length - rest));
  }

  #run(channels: readonly Float32Array[], count: number): Float32Array[] {
    const latency = AHEAD + PEAK_DELAY;
    const gain = this.#gain;
    const gains = this.#gains(channels, count, gain);
    const skipped = Math.max(0, Math.min(count, latency - this.#in));
    const out = channels.map((samples, c) => {
      const line = this.#delay[c]!;
      if (this.#made[c]!.length < count) this.#made[c] = new Float32Array(count);
      const limited = this.#made[c]!.subarray(0, count - skipped);
      let at = this.#delayAt;
      for (let i = 0; i < count; i++) {
        if (i >= skipped) limited[i - skipped] = line[at]! * gains[i]!;
        line[at] = samples[i]! * gain;
        if (++at === latency) at = 0;
      }
      return limited;
    });
    this.#delayAt = (this.#delayAt + count) % latency;
    this.#in += count;
    this.#out += count - skipped;
    return out;
  }

  #gains(channels: readonly Float32Array[], count: number, gain: number): Float64Array {
    if (this.#peaks.length < count) {
      this.#peaks = new Float32Array(count);
      this.#gainsKept = new Float64Array(count);
    }
    const peaks = this.#peaks.fill(0, 0, count);
    for (const [c, tracker] of this.#trackers.entries())
      tracker.raise(channels[c]!, peaks, this.ceiling / gain);
    const gains = this.#gainsKept;
    const highest = this.ceiling / gain;
    for (let i = 0; i < count; i++) {
      const peak = peaks[i]!;
      const needed = peak > highest ? highest / peak : 1;
      // Nothing to hold back, and full gain for as long as it looks ahead: the usual case.
      if (needed === 1 && this.#minima.length === 0 && this.#windowSum === AHEAD) {
        gains[i] = 1;
        continue;
      }
      gains[i] = this.#gainFor(needed, this.#in + i);
    }
    return gains;
  }

  #gainFor(needed: number, at: number): number {
    const minima = this.#minima;
    if (needed < 1) {
      while (minima.length > 0 && minima[minima.length - 1]!.gain >= needed) minima.pop();
      minima.push({ at, gain: needed });
    }
    // A peak may lie on either side of its sample, so it is held a little longer.
    while (minima.length > 0 && minima[0]!.at < at - AHEAD - PEAK_DELAY) minima.shift();
    const lowest = minima.length > 0 ? minima[0]!.gain : 1;
    const rising = this.#held + (1 - this.#held) * RELEASE;
    this.#held = rising > NEARLY ? Math.min(lowest, 1) : Math.min(lowest, rising);
    this.#windowSum += this.#held - this.#window[this.#windowAt]!;
    this.#window[this.#windowAt] = this.#held;
    if (++this.#windowAt === AHEAD) {
      this.#windowAt = 0;
      // Summed anew now and then, so that rounding does not add up.
      this.#windowSum = this.#window.reduce((sum, g) => sum + g, 0);
    }
    return Math.min(1, this.#windowSum / AHEAD);
  }
}
