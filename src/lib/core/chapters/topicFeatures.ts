import { addVector, rankOf, VECTOR_SIZE } from '../text/vectors.ts';
import { ENGLISH_STOP_WORDS } from '../lang/en/words.ts';

/** Small words whose rates tell a manner of speaking, as word vectors tell the matter. */
const MANNER =
  'the of and to a in that is was he for it with as his on be at by i this had not are but from or have an they which one you were her all she there would their we him been has when who will more if out so what up its about than them can only could time do my our me no your said did most us mr now'.split(
    ' '
  );
const MANNER_INDEX = new Map(MANNER.map((word, i) => [word, VECTOR_SIZE + i]));
const NUMBERS = VECTOR_SIZE + MANNER.length;
const PAST = NUMBERS + 1;
const PRESENT = NUMBERS + 2;
const LENGTH = NUMBERS + 3;
export const FEATURE_COUNT = NUMBERS + 4;
/** Weight of a word by how common it is, as in Arora, Liang and Ma (2017). */
const COMMON = 100;
/** Correlation of the words of one sentence: a long one does not tell as much more. */
const WITHIN = 0.2;

/** What an English sentence is about and in which manner, and how much it tells. */
export interface TopicFeatures {
  /** Mean over the content words; `FEATURE_COUNT` numbers. */
  values: Float64Array;
  /** The number of independent observations that the sentence is worth. */
  weight: number;
}

/** @param words in lower case, with straight apostrophes */
export function topicFeatures(words: readonly string[]): TopicFeatures {
  const values = new Float64Array(FEATURE_COUNT);
  let content = 0;
  for (const word of words) {
    if (ENGLISH_STOP_WORDS.has(word) || /^\d$/.test(word)) continue;
    content++;
    const plain = word.replace(/'s$/, '');
    const rank = rankOf(plain);
    if (rank !== null) {
      addVector(plain, values, (rank + 2.7) / (rank + 2.7 + COMMON), 0, VECTOR_SIZE);
    }
  }
  const told = Math.max(1, content);
  for (let k = 0; k < VECTOR_SIZE; k++) values[k] = (values[k] ?? 0) / told;
  const share = 1 / Math.max(4, words.length);
  const add = (k: number) => (values[k] = (values[k] ?? 0) + share);
  for (const word of words) {
    const manner = MANNER_INDEX.get(word);
    if (manner !== undefined) add(manner);
    if (/\d/.test(word)) add(NUMBERS);
    if (word.endsWith('ed')) add(PAST);
    if (word.endsWith('ing')) add(PRESENT);
  }
  values[LENGTH] = (Math.min(40, words.length) / 20) * 0.1;
  return { values, weight: told / (1 + WITHIN * (told - 1)) };
}
