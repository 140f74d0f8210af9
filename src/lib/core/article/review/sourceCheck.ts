import { bare } from '../../text/bare.ts';
import type { Cue } from '../../captions/cue.ts';
import { WRITTEN_FOR } from '../../lang/en/speech.ts';

/** Words that may lie between two neighbours of a written sentence: what was cut out of it. */
const MAX_CUT = 8;
/** Share of a sentence's runs of three words that must be found in the talk. */
const MIN_FOUND = 0.6;
/** Words below which a sentence says too little to be told from others. */
const MIN_WORDS = 6;

const wordsOf = (text: string): string[] =>
  text
    .replace(/<[^<>]*>/g, ' ')
    .split(/\s+/)
    .flatMap((word) => (WRITTEN_FOR[bare(word)] ?? word).split(' '))
    .map(bare)
    .filter(Boolean);

/**
 * Holds written sentences against what was said: the words of a sentence taken from a talk stand in
 * the talk in their order, with at most a few others between them. It looks at nothing but the
 * captions themselves, so it finds a text that came from another talk whatever the cause.
 * Time grows with the sentences and with how often their words are said.
 * @param sentences plain text
 * @param cues of the one talk that they claim to come from
 * @returns the sentences that do not come from it
 */
export function notFromTalk(sentences: readonly string[], cues: readonly Cue[]): string[] {
  const places = new Map<string, number[]>();
  for (const [at, word] of wordsOf(cues.map((cue) => cue.text).join(' ')).entries()) {
    const known = places.get(word);
    if (known) known.push(at);
    else places.set(word, [at]);
  }
  const follows = (from: number, word: string): number[] =>
    (places.get(word) ?? []).filter((at) => at > from && at <= from + MAX_CUT);
  const isSaid = (first: string, second: string, third: string): boolean =>
    (places.get(first) ?? []).some((at) =>
      follows(at, second).some((next) => follows(next, third).length > 0)
    );
  return sentences.filter((sentence) => {
    const words = wordsOf(sentence);
    if (words.length < MIN_WORDS) return false;
    let found = 0;
    for (let i = 0; i + 2 < words.length; i++)
      if (isSaid(words[i]!, words[i + 1]!, words[i + 2]!)) found++;
    return found / (words.length - 2) < MIN_FOUND;
  });
}
