/** Numbers in [0, 1) that are the same for the same words (xmur3 into mulberry32). */
export function randomOf(words: string): () => number {
  let h = 1779033703 ^ words.length;
  for (let i = 0; i < words.length; i++) {
    h = Math.imul(h ^ words.charCodeAt(i), 3432918353);
    h = (h << 13) | (h >>> 19);
  }
  let state = h | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A number that happens so often where `mean` is usual (Knuth). */
export function poisson(mean: number, next: () => number): number {
  const limit = Math.exp(-Math.min(mean, 500));
  let count = 0;
  for (let product = next(); product > limit; product *= next()) count++;
  return count;
}
