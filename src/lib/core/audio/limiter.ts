import { SAMPLE_RATE } from './loudness.ts';
import { PEAK_DELAY, PeakTracker } from './truePeak.ts';

/** Samples that the gain is turned down ahead of a peak. */
const AHEAD = Math.round(0.004 * SAMPLE_RATE);
/** Samples by which what comes out is behind. */
const LATENCY = AHEAD + PEAK_DELAY;
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
  /** The last samples of each channel: they come out with the next ones. */
  readonly #lines: Float32Array[];
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
    this.#lines = Array.from({ length: channels }, () => new Float32Array(LATENCY));
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
      this.#trackers.map(() => new Float32Array(LATENCY)),
      LATENCY
    ).map((channel) => channel.subarray(channel.length - rest));
  }

  #run(channels: readonly Float32Array[], count: number): Float32Array[] {
    const gains = this.#gains(channels, count, this.#gain);
    const skipped = Math.max(0, Math.min(count, LATENCY - this.#in));
    const out = channels.map((samples, c) => this.#delayed(samples, c, gains, count, skipped));
    this.#in += count;
    this.#out += count - skipped;
    return out;
  }

  /** What came before these samples, with the gains that are found now. */
  #delayed(
    samples: Float32Array,
    channel: number,
    gains: Float64Array,
    count: number,
    skipped: number
  ): Float32Array {
    const line = this.#lines[channel]!;
    if (this.#made[channel]!.length < count) this.#made[channel] = new Float32Array(count);
    const limited = this.#made[channel]!;
    const gain = this.#gain;
    const fromLine = Math.min(count, LATENCY);
    for (let i = 0; i < fromLine; i++) limited[i] = line[i]! * gains[i]!;
    for (let i = fromLine; i < count; i++) limited[i] = samples[i - LATENCY]! * gain * gains[i]!;
    line.copyWithin(0, fromLine);
    const kept = LATENCY - fromLine;
    for (let i = kept; i < LATENCY; i++) line[i] = samples[count - LATENCY + i]! * gain;
    return limited.subarray(skipped, count);
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
    while (minima.length > 0 && minima[0]!.at < at - LATENCY) minima.shift();
    const lowest = minima.length > 0 ? minima[0]!.gain : 1;
    const rising = this.#held + (1 - this.#held) * RELEASE;
    const held = Math.min(lowest, rising > NEARLY ? 1 : rising);
    this.#held = held;
    const window = this.#window;
    let place = this.#windowAt;
    this.#windowSum += held - window[place]!;
    window[place] = held;
    if (++place === AHEAD) {
      place = 0;
      // Summed anew now and then, so that rounding does not add up.
      let sum = 0;
      for (let i = 0; i < AHEAD; i++) sum += window[i]!;
      this.#windowSum = sum;
    }
    this.#windowAt = place;
    return Math.min(1, this.#windowSum / AHEAD);
  }
}
