import packed from './vectors.weights.json' with { type: 'json' };
import { bytesOf } from './bytes.ts';

let rows: Int8Array | null = null;
let ranks: Map<string, number> | null = null;

/** Components of a word vector. The first few tell grammar and rarity, the others topics. */
export const VECTOR_SIZE = packed.size;

/**
 * How common an English word is: 0 for the commonest, null beyond the words that are known. Ranks
 * are those of newspaper and encyclopedia text.
 */
export function rankOf(word: string): number | null {
  ranks ??= new Map(packed.words.split(' ').map((w, i) => [w, i]));
  return ranks.get(word) ?? null;
}

/**
 * Adds components `from` up to `to` of a word's vector, times a weight, to a sum.
 * @returns false when the word is not known
 */
export function addVector(
  word: string,
  sum: Float32Array | Float64Array,
  weight: number,
  from: number,
  to: number
): boolean {
  const rank = rankOf(word);
  if (rank === null) return false;
  rows ??= bytesOf(packed.data);
  const base = rank * packed.size;
  for (let k = from; k < to; k++) {
    sum[k - from] = (sum[k - from] ?? 0) + weight * (rows[base + k] ?? 0) * (packed.scale[k] ?? 0);
  }
  return true;
}

/**
 * How often an English word is used in a thousand words of common writing, by Zipf's law in the
 * form of Mandelbrot (rate = C / (rank + 2.7)).
 */
export function usualRate(word: string): number {
  const rank = rankOf(word);
  return rank === null ? 0.002 : 100 / (rank + 2.7);
}
