import { ASKING, HELPING, hasFormOfQuestion, SUBJECT } from '../lang/en/questions.ts';
import { chance, binned, score, type Scorer } from './scorer.ts';
import SHIPPED from './questions.weights.json' with { type: 'json' };

/** Chance from which on a sentence is given its question mark. */
const SURE = 0.4;
/** What there is to know of a sentence without its mark, as names of features. */
export function questionFeatures(words: readonly string[]): string[] {
  const features = new Set<string>();
  const n = words.length;
  features.add(binned('long', n, [1, 2, 3, 5, 8, 12, 18, 26, 40]));
  for (let k = 0; k < Math.min(4, n); k++) features.add(`head ${k}:${words[k]}`);
  for (let k = 1; k <= Math.min(4, n); k++) features.add(`end ${k}:${words[n - k]}`);
  features.add(`head:${words.slice(0, 2).join(' ')}`);
  features.add(`head:${words.slice(0, 3).join(' ')}`);
  features.add(`end:${words.slice(-2).join(' ')}`);
  features.add(`end:${words.slice(-3).join(' ')}`);
  if (n <= 4) features.add(`whole:${words.join(' ')}`);
  if (hasFormOfQuestion(words.join(' '))) features.add('form');
  for (let k = 0; k + 1 < n; k++) {
    const where = binned('', n - k, [3, 5, 8, 14]);
    const at = k === 0 ? 'first' : k < 4 ? 'early' : where;
    if (HELPING.test(words[k] ?? '') && SUBJECT.test(words[k + 1] ?? ''))
      features.add(`turned ${at}`);
    if (ASKING.test(words[k] ?? '') && HELPING.test(words[k + 1] ?? ''))
      features.add(`asked ${at}`);
    if (/^(?:what's|who's|where's|how's)$/.test(words[k] ?? '')) features.add(`asked ${at}`);
  }
  if (ASKING.test(words[n - 1] ?? '')) features.add('ends asking');
  return [...features];
}

/**
 * Whether an English sentence is a question, by its words alone.
 * @param words in lower case, without marks
 */
export const isQuestion = (words: readonly string[], scorer: Scorer = SHIPPED): boolean =>
  words.length > 0 && chance(score(scorer, questionFeatures(words))) > SURE;
