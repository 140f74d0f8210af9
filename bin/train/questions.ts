/**
 * Learns which sentences are questions, from the talks beside this script (written for this project):
 * `node --import tsx bin/train/questions.ts`, a few seconds. Writes
 * src/lib/core/text/questions.weights.json and says how it does on talks that were held out.
 */
import { writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { bare } from '../../src/lib/core/text/bare.ts';
import { questionFeatures } from '../../src/lib/core/text/questions.ts';
import { chance, score, type Scorer } from '../../src/lib/core/text/scorer.ts';
import { learnLogistic, type Example } from './logistic.ts';
import { fold, furtherTalks, labelledTalks, type LabelledTalk } from './speech.ts';

const FOLDS = 4;

export const questionsOf = ({ name, words, ends }: LabelledTalk): Example[] =>
  ends.flatMap((to, i) => {
    const said = words.slice(ends[i - 1] ?? 0, to).map((w) => w.text);
    const plain = said.map(bare).filter(Boolean);
    if (plain.length === 0) return [];
    const target = /\?["”’)]*$/.test(said.at(-1) ?? '') ? 1 : 0;
    return [{ features: questionFeatures(plain), target, group: name }];
  });

export const learnQuestions = (examples: readonly Example[]): Scorer =>
  learnLogistic(examples, { groups: 3, epochs: 20, least: 0.06 });

function f1(sure: number): { precision: number; recall: number } {
  let [hits, found, right] = [0, 0, 0];
  const further = furtherTalks().flatMap(questionsOf);
  for (let n = 0; n < FOLDS; n++) {
    const { held, others } = fold(labelledTalks(), n, FOLDS);
    const scorer = learnQuestions([...others.flatMap(questionsOf), ...further]);
    for (const { features, target } of held.flatMap(questionsOf)) {
      const yes = chance(score(scorer, features)) > sure;
      if (yes) found++;
      if (target) right++;
      if (yes && target) hits++;
    }
  }
  return { precision: hits / found, recall: hits / right };
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  for (const sure of [0.3, 0.4, 0.5, 0.6]) console.log(sure, f1(sure));
  const all = [...labelledTalks(), ...furtherTalks()].flatMap(questionsOf);
  writeFileSync(
    'src/lib/core/text/questions.weights.json',
    `${JSON.stringify(learnQuestions(all))}\n`
  );
}
