import { shortsOf } from '../text/bytes.ts';
import { FEATURE_COUNT, topicFeatures } from './topicFeatures.ts';
import packed from './topics.weights.json' with { type: 'json' };

/** Axes of the space in which parts of texts differ most for how much their sentences do. */
export const AXES = packed.between.length;

let axes: Float64Array | null = null;

/** A sentence as a point: sentences of one part lie about their part's mean with variance one. */
export interface Point {
  values: Float64Array;
  weight: number;
}

/** @param words of an English sentence, in lower case, with straight apostrophes */
export function pointOf(words: readonly string[]): Point {
  axes ??= Float64Array.from(shortsOf(packed.axes), (b, i) => {
    return b * (packed.scale[Math.floor(i / FEATURE_COUNT)] ?? 0);
  });
  const { values, weight } = topicFeatures(words);
  const point = new Float64Array(AXES);
  for (let a = 0; a < AXES; a++) {
    let sum = -(packed.mean[a] ?? 0);
    const row = a * FEATURE_COUNT;
    for (let k = 0; k < FEATURE_COUNT; k++) sum += (axes[row + k] ?? 0) * (values[k] ?? 0);
    point[a] = sum;
  }
  return { values: point, weight };
}

/** Variance of the means of parts along each axis. */
export const BETWEEN: readonly number[] = packed.between;
