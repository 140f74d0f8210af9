import model from 'wink-eng-lite-web-model';
import winkNLP, { type WinkMethods } from 'wink-nlp';

let nlp: WinkMethods | null = null;

/**
 * Parts of speech of English words in their order (universal tags: `NOUN`, `VERB`, …); the words
 * need neither punctuation nor capitals. A contraction has the tag of its first part.
 */
export function tagWords(words: readonly string[]): string[] {
  nlp ??= winkNLP(model, ['pos']);
  const { its } = nlp;
  const tokens = nlp.readDoc(words.join(' ')).tokens();
  const values = tokens.out(its.value) as string[];
  const tags = tokens.out(its.pos) as string[];
  const result: string[] = [];
  let at = 0;
  for (const word of words) {
    result.push(tags[at] ?? 'X');
    // The tokens of a word are those that make up its characters.
    for (let length = 0; length < word.length && at < values.length; at++) {
      length += values[at]?.length ?? 0;
    }
  }
  return result;
}
