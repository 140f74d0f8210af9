import { GERMAN_GISTS } from '../../lang/de/gists.ts';
import { ENGLISH_GISTS } from '../../lang/en/gists.ts';
import type { GistWords } from '../../lang/gists.ts';
import { bare } from '../../text/bare.ts';
import { languageOf } from '../../text/language.ts';
import { tagWords } from '../../text/tag.ts';

/** A word of a sentence, with the characters it takes. */
export interface Word {
  text: string;
  from: number;
  to: number;
  /** In lower case, without punctuation. */
  plain: string;
  /** Part of speech as far as it is known (universal tags), with `NUM` for every number. */
  tag: string;
}

/** A sentence as the director reads it. */
export interface ReadSentence {
  text: string;
  words: Word[];
  /** Null for languages that nothing is known of. */
  known: GistWords | null;
}

const WORDS: Readonly<Record<string, GistWords | undefined>> = {
  en: ENGLISH_GISTS,
  de: GERMAN_GISTS
};

/** @param language BCP 47 */
export function readSentence(text: string, language: string): ReadSentence {
  const { code } = languageOf(language);
  const known = WORDS[code] ?? null;
  const found = [...text.matchAll(/\S+/g)].map((match) => ({
    text: match[0],
    from: match.index,
    to: match.index + match[0].length,
    plain: bare(match[0])
  }));
  const tags = code === 'en' ? tagWords(found.map((w) => w.plain || '.')) : [];
  const words = found.map((word, i) => ({ ...word, tag: tagOf(word, i, tags, known) }));
  return { text, words, known };
}

function tagOf(
  word: Omit<Word, 'tag'>,
  at: number,
  tags: readonly string[],
  known: GistWords | null
): string {
  if (!known) return 'X';
  if (known.numbers.test(word.plain)) return 'NUM';
  if (known.denials.has(word.plain)) return 'PART';
  if (tags[at]) return tags[at];
  // German writes its nouns with a capital; what is small and no word of grammar is a verb or the like.
  if (/^[\p{Ps}\p{Pi}"']*\p{Lu}/u.test(word.text) && (at > 0 || !known.tails.has(word.plain)))
    return 'NOUN';
  return known.tails.has(word.plain) || known.heads.has(word.plain) ? 'DET' : 'VERB';
}
