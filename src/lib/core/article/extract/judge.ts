import type { Talk } from '../../text/talk.ts';
import { chance, score, type Scorer } from '../../text/scorer.ts';
import weights from './judge.weights.json' with { type: 'json' };
import { sentenceFeatures } from './sentenceFeatures.ts';

/** How an editor would judge a sentence, as chances from 0 to 1. */
export interface Judgement {
  /** It must be in an article of a third of the length. */
  must: number;
  /** It must not be in any article. */
  mustNot: number;
  /** A takeaway rests on it. */
  takeaway: number;
}

const ANSWERS = ['must', 'mustNot', 'takeaway'] as const;
export type Answer = (typeof ANSWERS)[number];

/**
 * What was learned of editors' judgements: a scorer of the sentence by itself for each answer, and how
 * the scores of the sentence and of those around it come to the answer.
 */
export interface Judge {
  alone: Record<Answer, Scorer>;
  /** For each answer, weights of what `inContext` gives. */
  together: Record<Answer, readonly number[]>;
}

export const SHIPPED_JUDGE: Judge = weights;

/** Sentences before and after whose scores are looked at. */
const WINDOWS = [4, 8] as const;

/** Log-odds of each sentence by itself. */
export function scoreAlone(
  features: readonly (readonly string[])[],
  { alone }: Pick<Judge, 'alone'>
): number[][] {
  return features.map((row) => ANSWERS.map((answer) => score(alone[answer], row)));
}

/** A sentence's own scores, and the means of must and must not around it. */
export function inContext(scores: readonly (readonly number[])[], i: number): number[] {
  const [must = 0, mustNot = 0, takeaway = 0] = scores[i] ?? [];
  const row = [1, must, mustNot, takeaway];
  for (const reach of WINDOWS) {
    const around = [
      ...scores.slice(Math.max(0, i - reach), i),
      ...scores.slice(i + 1, i + 1 + reach)
    ];
    for (const which of [0, 1])
      row.push(around.reduce((sum, s) => sum + (s[which] ?? 0), 0) / (around.length || 1));
  }
  return row;
}

/**
 * Judges every sentence of an English talk as editors judged those of others.
 * @param subject stems that the talk is about, most telling first
 */
export function judgeSentences(
  talk: Talk,
  subject: readonly string[],
  judge: Judge = SHIPPED_JUDGE
): Judgement[] {
  const scores = scoreAlone(sentenceFeatures(talk, subject), judge);
  return scores.map((_, i) => {
    const row = inContext(scores, i);
    const of = (answer: Answer) =>
      chance(row.reduce((sum, x, k) => sum + x * (judge.together[answer][k] ?? 0), 0));
    return { must: of('must'), mustNot: of('mustNot'), takeaway: of('takeaway') };
  });
}

/** Mean log-odds of must, and how far apart two sentences of a talk are, where terms alone tell. */
const BY_TERMS = { middle: 0.42, slope: 6 };

/**
 * Judges sentences of any language by how much they say of what the talk comes back to: all that is
 * known where no editor's judgements were learned from.
 */
export function judgeByTerms(talk: Talk, subject: readonly string[]): Judgement[] {
  const weight = new Map(subject.map((stem, rank) => [stem, 1 / (1 + rank / 6)]));
  return talk.sentences.map(({ from, to }, i) => {
    const stems = new Set(talk.stems[i]);
    const told = [...stems].reduce((sum, stem) => sum + (weight.get(stem) ?? 0.12), 0);
    const length = to - from;
    const rate = told / Math.sqrt(4 + length) - (length < 6 ? 0.2 : 0) - (length > 38 ? 0.3 : 0);
    const must = chance(BY_TERMS.slope * (rate - BY_TERMS.middle));
    return { must, mustNot: 0.4 * (1 - must), takeaway: 0.4 * must };
  });
}
