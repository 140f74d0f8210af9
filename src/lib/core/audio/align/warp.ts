import { COEFFICIENTS, type Cepstra } from './cepstra.ts';

/** How one sound runs along another. */
export interface Warp {
  /** Row of the other that each row of the one is laid on, as a number between rows where several are. */
  at: Float32Array;
  /** How unlike the two are at each row of the one. */
  distance: Float32Array;
}

const [BOTH, ONE, OTHER] = [0, 1, 2];

/**
 * Lays one sound along another so that like falls on like: dynamic time warping (Sakoe and Chiba 1978) with
 * steps of equal weight, within a band around the straight line from beginning to end.
 * @param reach seconds by which the one may run ahead of, or behind, the straight line
 */
export function warp(one: Cepstra, other: Cepstra, reach: number): Warp {
  const [n, m] = [one.count, other.count];
  const at = new Float32Array(n);
  const distance = new Float32Array(n);
  if (n === 0 || m === 0) return { at, distance };
  // Wide enough that the band of each row meets that of the next.
  const half = Math.max(Math.ceil(reach / other.hop), 2 * Math.ceil(m / n) + 2);
  const width = Math.min(m, 2 * half + 1);
  const first = (i: number) =>
    Math.max(0, Math.min(m - width, Math.round((i * (m - 1)) / Math.max(1, n - 1)) - half));
  const steps = new Uint8Array(n * width);
  let before = new Float64Array(width).fill(Infinity);
  let here = new Float64Array(width);
  for (let i = 0; i < n; i++) {
    const from = first(i);
    const moved = i === 0 ? 0 : from - first(i - 1);
    for (let b = 0; b < width; b++) {
      const cost = unlike(one.rows, i, other.rows, from + b);
      const one_ = before[b + moved] ?? Infinity;
      const both = before[b + moved - 1] ?? Infinity;
      const other_ = b > 0 ? here[b - 1]! : Infinity;
      if (i === 0 && from + b === 0) here[b] = cost;
      // A step along both pays for two, so that the number of steps does not weigh.
      else if (both + cost <= one_ && both + cost <= other_) {
        here[b] = both + 2 * cost;
        steps[i * width + b] = BOTH;
      } else if (one_ <= other_) {
        here[b] = one_ + cost;
        steps[i * width + b] = ONE;
      } else {
        here[b] = other_ + cost;
        steps[i * width + b] = OTHER;
      }
    }
    [before, here] = [here, before];
  }
  trace(steps, width, first, [n, m], (i, from, to) => {
    at[i] = (from + to) / 2;
    distance[i] = unlike(one.rows, i, other.rows, Math.round((from + to) / 2));
  });
  return { at, distance };
}

/** Walks back from the end. @param told given each row of the one with the first and last row it lies on */
function trace(
  steps: Uint8Array,
  width: number,
  first: (i: number) => number,
  [n, m]: [number, number],
  told: (i: number, from: number, to: number) => void
): void {
  let [i, k] = [n - 1, m - 1];
  let last = k;
  while (i >= 0) {
    const step = i === 0 && k === 0 ? BOTH : steps[i * width + (k - first(i))];
    if (step === OTHER && k > 0) {
      k--;
      continue;
    }
    told(i, k, last);
    i--;
    if (step === BOTH) k = Math.max(0, k - 1);
    last = k;
  }
}

function unlike(one: Float32Array, i: number, other: Float32Array, k: number): number {
  const [from, to] = [i * COEFFICIENTS, k * COEFFICIENTS];
  let sum = 0;
  for (let c = 0; c < COEFFICIENTS; c++) {
    const d = one[from + c]! - other[to + c]!;
    sum += d * d;
  }
  return Math.sqrt(sum);
}

/** Where a moment of the one lies in the other. @param seconds of the one */
export function secondsAlong(path: Warp, one: Cepstra, other: Cepstra, seconds: number): number {
  const row = Math.max(0, Math.min(one.count - 1, seconds / one.hop));
  const [low, high] = [Math.floor(row), Math.ceil(row)];
  const share = row - low;
  return ((path.at[low] ?? 0) * (1 - share) + (path.at[high] ?? 0) * share) * other.hop;
}

/** How unlike two sounds are that were laid along each other. */
export const meanDistance = ({ distance }: Warp): number =>
  distance.reduce((sum, d) => sum + d, 0) / (distance.length || 1);
