/**
 * Learns the axes along which the parts of a text differ most for how much the sentences of one
 * part do (probabilistic linear discriminant analysis; Ioffe 2006), from the tuning half of the
 * Brown corpus, each file being one part: `node --import tsx bin/train/topics.ts`. Writes
 * src/lib/core/chapters/topics.weights.json.
 */
import { writeFileSync } from 'node:fs';
import { FEATURE_COUNT, topicFeatures } from '../../src/lib/core/chapters/topicFeatures.ts';
import { wordsOf } from '../../src/lib/core/text/terms.ts';
import { brownFiles } from './brown.ts';
import { addOuter, at, eigen, zeros } from './linear.ts';

const KEPT = 64;
/** Sentences with fewer words tell too little. */
const MIN_WORDS = 5;
/** How far the off-diagonal is drawn to nothing, there being few files. */
const SHRUNK = 0.1;

const within = zeros(FEATURE_COUNT);
const means: Float64Array[] = [];
let sentences = 0;
for (const file of brownFiles('tune')) {
  const seen = file
    .map(wordsOf)
    .filter((words) => words.length >= MIN_WORDS)
    .map(topicFeatures);
  const total = seen.reduce((sum, s) => sum + s.weight, 0);
  const mean = new Float64Array(FEATURE_COUNT);
  for (const { values, weight } of seen)
    for (let k = 0; k < FEATURE_COUNT; k++)
      mean[k] = (mean[k] ?? 0) + (weight * (values[k] ?? 0)) / total;
  for (const { values, weight } of seen)
    addOuter(
      within,
      values.map((x, k) => x - (mean[k] ?? 0)),
      weight
    );
  sentences += seen.length;
  means.push(mean);
}
const grand = Float64Array.from({ length: FEATURE_COUNT }, (_, k) =>
  means.reduce((sum, mean) => sum + (mean[k] ?? 0) / means.length, 0)
);
const between = zeros(FEATURE_COUNT);
for (const mean of means)
  addOuter(
    between,
    mean.map((x, k) => x - (grand[k] ?? 0)),
    1 / means.length
  );
for (const [a, row] of within.entries())
  for (let b = 0; b < row.length; b++) {
    const kept = a === b ? 1 : 1 - SHRUNK;
    row[b] = ((row[b] ?? 0) * kept) / sentences;
    (between[a] as Float64Array)[b] = at(between, a, b) * kept;
  }

const whitening = eigen(within).map(({ value, vector }) =>
  vector.map((x) => x / Math.sqrt(Math.max(value, 1e-9)))
);
const dot = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += (a[k] ?? 0) * (b[k] ?? 0);
  return sum;
};
const white = whitening.map((row) => {
  const turned = between.map((line) => dot(line, row));
  return Float64Array.from(whitening, (other) => dot(turned, other));
});
const kept = eigen(white).slice(0, KEPT);
const axes = kept.map(({ vector }) =>
  Float64Array.from({ length: FEATURE_COUNT }, (_, k) =>
    vector.reduce((sum, x, i) => sum + x * (whitening[i]?.[k] ?? 0), 0)
  )
);
// Bytes are too coarse where features differ in size, so two bytes of each number are kept.
const scale = axes.map((axis) => axis.reduce((most, x) => Math.max(most, Math.abs(x)), 0) / 32767);
const numbers = Int16Array.from(
  axes.flatMap((axis, a) => Array.from(axis, (x) => Math.round(x / (scale[a] ?? 1))))
);
const short = (x: number) => Number(x.toPrecision(5));
writeFileSync(
  'src/lib/core/chapters/topics.weights.json',
  JSON.stringify({
    between: kept.map(({ value }) => short(value)),
    mean: axes.map((axis) => short(dot(axis, grand))),
    scale: scale.map(short),
    axes: Buffer.from(numbers.buffer).toString('base64')
  })
);
