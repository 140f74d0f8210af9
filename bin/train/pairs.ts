/**
 * Learns how much each likeness of a video and a post speaks for their telling the same, from made catalogues of
 * three crafts: `node --import tsx bin/train/pairs.ts`. Writes src/lib/core/twins/likeness/pairs.weights.json and
 * judges it on three other crafts.
 */
import { writeFileSync } from 'node:fs';
import type { Compared } from '../../src/lib/core/twins/likeness/compared.ts';
import { corpusOf } from '../../src/lib/core/twins/likeness/corpus.ts';
import { leftOvers } from '../../src/lib/core/twins/likeness/leftOver.ts';
import { BESIDE_WIDTH, Besides } from '../../src/lib/core/twins/likeness/beside.ts';
import { featuresOf } from '../../src/lib/core/twins/likeness/features.ts';
import { compareAll } from '../../src/lib/core/twins/likeness/compareAll.ts';
import type { PairModel } from '../../src/lib/core/twins/likeness/pairModel.ts';
import { bestWhole } from '../../src/lib/core/twins/likeness/propose.ts';
import type { Trees } from '../../src/lib/core/text/trees.ts';
import type { Catalogue } from './catalogue/catalogue.ts';
import { judge, toldIn, type Judged } from './catalogue/judge.ts';
import {
  heldOutBare,
  heldOutCatalogues,
  sixStyles,
  heldOutMixtures,
  heldOutOwnWords,
  heldOutSmallChannels,
  heldOutThinned,
  heldOutUnnumbered,
  tuningBare,
  tuningCatalogues,
  tuningMixtures,
  tuningOwnWords,
  tuningSmallChannels,
  tuningTalkChannels,
  tuningThinned,
  tuningUnnumbered
} from './catalogue/sets.ts';
import { WRITTEN, writtenCatalogue } from './catalogue/written.ts';
import { learnTrees } from './boosting.ts';
import { learnLogistic, type Example } from './logistic.ts';

const NOTHING = { bias: 0, weights: {} };
const NO_TREES = { bias: 0, roots: [], asks: [], edges: [], above: [] };
const NONE: PairModel = { alone: NOTHING, beside: NO_TREES, leftOver: NOTHING };
const LEARNING = { epochs: 40, rate: 0.3, decay: 2e-5 };
const ROUNDS = 3;
const channels = tuningCatalogues();
const catalogues = [
  ...channels,
  ...tuningMixtures(),
  ...tuningTalkChannels(),
  ...tuningSmallChannels(),
  ...tuningThinned(),
  ...tuningBare(),
  ...tuningUnnumbered(),
  ...tuningOwnWords()
];

/** What is compared in one catalogue, and how the two of each pair belong together. */
function comparedIn(catalogue: Catalogue, model: PairModel, keeps: 'close' | 'all') {
  const corpus = corpusOf(...toldIn(catalogue));
  const truth = new Map(catalogue.truth.map((t) => [`${t.video} ${t.post}`, t.relation]));
  const relationOf = ({ video, post }: Compared) =>
    truth.get(`${corpus.videos[video]!.item.id} ${corpus.posts[post]!.item.id}`);
  return { corpus, all: compareAll(corpus, () => undefined, { model, keeps }), relationOf };
}

function examplesAlone(model: PairModel): Example[] {
  return catalogues.flatMap((catalogue, group) => {
    const { all, relationOf } = comparedIn(catalogue, model, 'all');
    return all.map((pair) => ({
      features: featuresOf(pair.likeness),
      target: relationOf(pair) ? 1 : 0,
      group: String(group)
    }));
  });
}

function examplesLeftOver(model: PairModel): Example[] {
  return catalogues.flatMap((catalogue, group) => {
    const { all, relationOf } = comparedIn(catalogue, model, 'close');
    return leftOvers(all, bestWhole(all)).map(({ pair, features }) => ({
      features,
      target: relationOf(pair) ? 1 : 0,
      group: String(group)
    }));
  });
}

function learnBeside(model: PairModel): Trees {
  const columns = Array.from({ length: BESIDE_WIDTH }, (): number[] => []);
  const targets: number[] = [];
  const numbers = new Float64Array(BESIDE_WIDTH);
  for (const catalogue of catalogues) {
    const { corpus, all, relationOf } = comparedIn(catalogue, model, 'close');
    const besides = new Besides(all, corpus);
    for (const [at, pair] of all.entries()) {
      besides.read(at, numbers);
      for (const [i, column] of columns.entries()) column.push(numbers[i]!);
      // A post that tells of several videos is like each of them, and so on: the twin of none.
      targets.push(relationOf(pair) === 'twin' ? 1 : 0);
    }
  }
  return learnTrees(
    columns.map((column) => Float64Array.from(column)),
    Float64Array.from(targets)
  );
}

// What is learned first tells which pairs of two languages are certain, and so what words mean in the other.
let model = NONE;
for (let round = 0; round < ROUNDS; round++) {
  const alone = learnLogistic(examplesAlone(model), LEARNING);
  model = { ...model, alone };
  model = { ...model, beside: learnBeside(model) };
}
model = { ...model, leftOver: learnLogistic(examplesLeftOver(model), LEARNING) };
writeFileSync(
  new URL('../../src/lib/core/twins/likeness/pairs.weights.json', import.meta.url),
  `${JSON.stringify(model)}\n`
);
for (const [name, sets] of [
  ['tuning', channels.slice(0, 11)],
  ['held out', heldOutCatalogues()],
  ['held out, mixed', heldOutMixtures()],
  ['held out, small', heldOutSmallChannels()],
  ['held out, half of them alone', heldOutThinned()],
  ['held out, without captions', heldOutBare()],
  ['held out, parts numbered on one side', heldOutUnnumbered()],
  ['held out, in own words', heldOutOwnWords()],
  ['written by hand', WRITTEN.map(writtenCatalogue)]
] as const) {
  const all = sets.map((catalogue) => judge(catalogue, model));
  const mean = (of: (judged: Judged) => number) =>
    (all.reduce((sum, j) => sum + of(j), 0) / all.length).toFixed(3);
  console.log(
    `${name}: precision ${mean((j) => j.precision)}, recall ${mean((j) => j.recall)}, with doubtful ${mean((j) => j.withDoubtful)} (${mean((j) => j.doubtful)} doubtful)`
  );
}
for (const [name, set] of Object.entries(sixStyles())) console.log(name, judge(set, model));
