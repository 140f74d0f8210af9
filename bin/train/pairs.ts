/**
 * Learns how much each likeness of a video and a post speaks for their telling the same, from made catalogues of
 * three crafts: `node --import tsx bin/train/pairs.ts`. Writes src/lib/core/twins/likeness/pairs.weights.json and
 * judges it on three other crafts.
 */
import { writeFileSync } from 'node:fs';
import type { Compared } from '../../src/lib/core/twins/likeness/compared.ts';
import { corpusOf } from '../../src/lib/core/twins/likeness/corpus.ts';
import { leftOvers } from '../../src/lib/core/twins/likeness/leftOver.ts';
import { featuresOf, rivalFeatures } from '../../src/lib/core/twins/likeness/features.ts';
import {
  bestWhole,
  compareAll,
  type PairModel
} from '../../src/lib/core/twins/likeness/propose.ts';
import { judge, toldIn, type Judged } from './catalogue/judge.ts';
import {
  heldOutCatalogues,
  sixStyles,
  tuningCatalogues,
  tuningMixtures,
  tuningTalkChannels
} from './catalogue/sets.ts';
import { learnLogistic, type Example } from './logistic.ts';

const NOTHING = { bias: 0, weights: {} };
const NONE: PairModel = { alone: NOTHING, beside: NOTHING, leftOver: NOTHING };
const LEARNING = { epochs: 40, rate: 0.3, decay: 2e-5 };
const ROUNDS = 3;
const channels = tuningCatalogues();
const catalogues = [...channels, ...tuningMixtures(), ...tuningTalkChannels()];

function examples(model: PairModel, stage: keyof PairModel): Example[] {
  return catalogues.flatMap((catalogue, group) => {
    const corpus = corpusOf(...toldIn(catalogue));
    const truth = new Map(catalogue.truth.map((t) => [`${t.video} ${t.post}`, t.relation]));
    const relationOf = ({ video, post }: Compared) =>
      truth.get(`${corpus.videos[video]!.item.id} ${corpus.posts[post]!.item.id}`);
    const all = compareAll(corpus, () => false, { model, keeps: 'all' });
    if (stage === 'leftOver')
      return leftOvers(all, bestWhole(all)).map(({ pair, features }) => ({
        features,
        target: relationOf(pair) ? 1 : 0,
        group: String(group)
      }));
    return all.map((pair): Example => {
      const relation = relationOf(pair);
      // A post that tells of several videos is like each of them, and so on: the twin of none.
      return stage === 'alone'
        ? { features: featuresOf(pair.likeness), target: relation ? 1 : 0, group: String(group) }
        : {
            features: rivalFeatures(pair),
            target: relation === 'twin' ? 1 : 0,
            group: String(group)
          };
    });
  });
}

// What is learned first tells which pairs of two languages are certain, and so what words mean in the other.
let model = NONE;
for (let round = 0; round < ROUNDS; round++) {
  const alone = learnLogistic(examples(model, 'alone'), LEARNING);
  model = { ...model, alone };
  model = { ...model, beside: learnLogistic(examples(model, 'beside'), LEARNING) };
}
model = { ...model, leftOver: learnLogistic(examples(model, 'leftOver'), LEARNING) };
writeFileSync(
  new URL('../../src/lib/core/twins/likeness/pairs.weights.json', import.meta.url),
  `${JSON.stringify(model)}\n`
);
for (const [name, sets] of [
  ['tuning', channels.slice(0, 11)],
  ['held out', heldOutCatalogues()]
] as const) {
  const all = sets.map((catalogue) => judge(catalogue, model));
  const mean = (of: (judged: Judged) => number) =>
    (all.reduce((sum, j) => sum + of(j), 0) / all.length).toFixed(3);
  console.log(
    `${name}: precision ${mean((j) => j.precision)}, recall ${mean((j) => j.recall)}, with doubtful ${mean((j) => j.withDoubtful)} (${mean((j) => j.doubtful)} doubtful)`
  );
}
for (const [name, set] of Object.entries(sixStyles())) console.log(name, judge(set, model));
