/**
 * Learns how editors judge the sentences of talks, from the talks beside this script (written for this
 * project): `node --import tsx bin/train/judge.ts`, about half a minute. Writes
 * src/lib/core/article/extract/judge.weights.json.
 */
import { writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { subjectOf } from '../../src/lib/core/article/extract/candidate.ts';
import {
  inContext,
  scoreAlone,
  type Answer,
  type Judge
} from '../../src/lib/core/article/extract/judge.ts';
import { sentenceFeatures } from '../../src/lib/core/article/extract/sentenceFeatures.ts';
import { readTalk, type Talk } from '../../src/lib/core/text/talk.ts';
import { learnLogistic } from './logistic.ts';
import {
  captionsAs,
  fold,
  furtherTalks,
  labelledTalks,
  type LabelledTalk,
  type Letter
} from './speech.ts';

export interface JudgedTalk {
  labelled: LabelledTalk;
  talk: Talk;
  /** One a sentence as the talk was read. */
  answers: Record<Answer, boolean>[];
  features: string[][];
}

/** Index of the sentence truly said that shares most time with each sentence as it was read; -1 for none. */
export function truthOf(labelled: LabelledTalk, talk: Talk): number[] {
  const { ends, words } = labelled;
  return talk.sentences.map(({ start, end }) => {
    let [best, most] = [-1, 0];
    for (const [i, to] of ends.entries()) {
      const from = words[ends[i - 1] ?? 0]!.start;
      const shared = Math.min(end, words[to - 1]!.end) - Math.max(start, from);
      if (shared > most) [best, most] = [i, shared];
    }
    return best;
  });
}

/** A talk with its judgements. */
export function judged(labelled: LabelledTalk): JudgedTalk {
  const talk = readTalk(captionsAs(labelled, 'clean'));
  const answers = truthOf(labelled, talk).map((i) => {
    const letter: Letter = labelled.letters[i] ?? 'D';
    return {
      must: letter === 'K',
      mustNot: letter === 'D',
      takeaway: labelled.takeaways.some((from) => from.includes(i))
    };
  });
  return { labelled, talk, answers, features: sentenceFeatures(talk, subjectOf(talk)) };
}

const ANSWERS: readonly Answer[] = ['must', 'mustNot', 'takeaway'];
const INNER = 4;

/** Learns a judge. How scores come together is learned from scores of talks that were held out. */
export function learnJudge(talks: readonly JudgedTalk[]): Judge {
  const aloneFrom = (some: readonly JudgedTalk[]): Judge['alone'] => {
    const of = (answer: Answer) =>
      learnLogistic(
        some.flatMap(({ labelled, answers, features }) =>
          features.map((row, i) => ({
            features: row,
            target: answers[i]?.[answer] ? 1 : 0,
            group: labelled.name
          }))
        ),
        { groups: 4, decay: 0.002, rate: 0.02, least: 0.04 }
      );
    return { must: of('must'), mustNot: of('mustNot'), takeaway: of('takeaway') };
  };
  const rows: number[][] = [];
  const answers: Record<Answer, boolean>[] = [];
  for (let n = 0; n < INNER; n++) {
    const { held, others } = fold(talks, n, INNER);
    const alone = aloneFrom(others);
    for (const talk of held) {
      const scores = scoreAlone(talk.features, { alone });
      rows.push(...scores.map((_, i) => inContext(scores, i)));
      answers.push(...talk.answers);
    }
  }
  const together = Object.fromEntries(
    ANSWERS.map((answer) => [
      answer,
      learnDense(
        rows,
        answers.map((a) => (a[answer] ? 1 : 0))
      )
    ])
  ) as unknown as Judge['together'];
  return { alone: aloneFrom(talks), together };
}

/** Logistic regression over a few numbers, by AdaGrad, in a fixed order. */
export function learnDense(rows: readonly number[][], targets: readonly number[]): number[] {
  const size = rows[0]?.length ?? 0;
  const w = new Array<number>(size).fill(0);
  const squares = new Array<number>(size).fill(1);
  for (let epoch = 0; epoch < 30; epoch++)
    for (let q = 0; q < rows.length; q++) {
      const i = (q * 7919) % rows.length;
      const row = rows[i]!;
      const sum = row.reduce((s, x, k) => s + x * w[k]!, 0);
      const error = 1 / (1 + Math.exp(-sum)) - targets[i]!;
      for (const [k, x] of row.entries()) {
        const gradient = error * x + 1e-4 * w[k]!;
        squares[k]! += gradient * gradient;
        w[k]! -= (0.1 * gradient) / Math.sqrt(squares[k]!);
      }
    }
  return w.map((x) => Math.round(x * 1000) / 1000);
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const judge = learnJudge([...labelledTalks(), ...furtherTalks()].map(judged));
  writeFileSync('src/lib/core/article/extract/judge.weights.json', `${JSON.stringify(judge)}\n`);
}
