import { gistOf } from './gist.ts';
import { readSentence, type ReadSentence } from './sentence.ts';

/** A term that a sentence explains. */
export interface Term {
  term: string;
  meaning: string;
  /** After how much of the sentence the meaning is said, between 0 and 1. */
  share: number;
}

/** A meaning that has more words than this is told by its gist. */
const MOST_WORDS = 11;

/** "A warp is a set of threads of the same length": the term and what it means; null for other sentences. */
export function termIn({ text, known }: ReadSentence, language: string): Term | null {
  for (const pattern of known?.terms ?? []) {
    const match = pattern.exec(text);
    const [, term, meaning] = match ?? [];
    if (!term || !meaning || !isNamed(term) || !isOneClause(meaning)) continue;
    const said = meaning.split(/\s+/);
    const short =
      said.length <= MOST_WORDS
        ? meaning
        : gistOf(readSentence(meaning, language))
            .map((p) => p.text)
            .join(' · ');
    if (!short) continue;
    const capital = (words: string) => words.replace(/^\p{Ll}/u, (c) => c.toUpperCase());
    return {
      term: capital(term),
      meaning: capital(short).replace(/[.!]$/, ''),
      share: text.indexOf(meaning) / text.length
    };
  }
  return null;
}

/** What is told of something else behind "and" is no part of the meaning; a number is a figure. */
const isOneClause = (meaning: string): boolean =>
  !/\b(?:and|but|und|aber)\b.*\s(?:is|are|was|were|has|ist|sind|hat)\s/i.test(meaning) &&
  !/^\d/.test(meaning);

/** What a pronoun stands for is no term. */
const isNamed = (term: string): boolean =>
  !/^(?:it|this|that|these|those|he|she|they|we|you|i|there|what|which|who|one|es|das|dies\p{L}*|er|sie|wir|man|ich|was|wer)(?!\p{L})/iu.test(
    term
  );
