import { ANAPHORA } from '../../lang/en/words.ts';
import {
  GENERIC_AFTER_THEY,
  LEANING_HEADS,
  NOBODY_NAMED,
  PERSONS,
  PLURALS,
  SELF_EXPLAINING_AFTER_IT,
  SINGULARS
} from '../../lang/en/pronouns.ts';
import { LEANING_HEADS as GERMAN_HEADS } from '../../lang/de/pronouns.ts';
import { bare } from '../../text/bare.ts';
import type { Talk } from '../../text/talk.ts';
import type { WrittenWord } from './written.ts';

/**
 * Words at the head of a sentence among which pronouns are looked at. Of those further in, half find
 * what they stand for in the sentence itself in a way that this cannot see: looking at all of them keeps
 * out more that an editor wants than it saves.
 */
const EARLY = 3;

/**
 * Whether a sentence cannot be understood without the one before it: it begins with what ties it
 * there, has no verb, or has a pronoun before which nothing that the pronoun could stand for is named.
 */
export function leansOnBefore(talk: Talk, words: readonly WrittenWord[]): boolean {
  const plain = words.map((w) => bare(w.text));
  const head = plain[0] ?? '';
  if (talk.language.code === 'de') return GERMAN_HEADS.has(head);
  if (talk.language.code !== 'en') return false;
  const tags = words.map((w) => talk.tags[w.at] ?? '');
  if (LEANING_HEADS.test(head)) return true;
  if (!tags.some((tag) => tag === 'VERB' || tag === 'AUX') && words.length < 8) return true;
  if (ANAPHORA.has(head) && !SINGULARS.has(head) && !isDeterminer(tags, 0)) return true;
  return plain.slice(0, EARLY).some((word, i) => isUnresolved(plain, tags, i, word));
}

/** "those" in "those things" points at what is named right after it. */
const isDeterminer = (tags: readonly string[], i: number): boolean =>
  /^(?:NOUN|PROPN|ADJ|NUM)$/.test(tags[i + 1] ?? '');

function isUnresolved(
  plain: readonly string[],
  tags: readonly string[],
  i: number,
  word: string
): boolean {
  // The first word of a command is often taken for a name.
  const named = plain.slice(0, i).filter((_, k) => k > 0 && /^(?:NOUN|PROPN)$/.test(tags[k] ?? ''));
  const isPlural = (noun: string) => PLURALS.test(noun);
  if (SINGULARS.has(word))
    return (
      !named.some((n) => !isPlural(n)) && !SELF_EXPLAINING_AFTER_IT.test(plain.slice(i).join(' '))
    );
  if (/^(?:they|they're|they've|they'll|they'd|them|their)$/.test(word))
    return !named.some(isPlural) && !GENERIC_AFTER_THEY.test(plain.slice(i).join(' '));
  if (PERSONS.has(word))
    return named.length === 0 && !NOBODY_NAMED.test(plain.slice(0, i).join(' '));
  if (/^(?:this|that|that's|those|these)$/.test(word))
    return named.length === 0 && !isDeterminer(tags, i) && !isJoining(plain, tags, i);
  return (
    (word === 'one' || word === 'ones') &&
    /^(?:this|that|the|which)$/.test(plain[i - 1] ?? '') &&
    named.length === 0
  );
}

/** "that" in "I know that it holds" only joins. */
const isJoining = (plain: readonly string[], tags: readonly string[], i: number): boolean =>
  plain[i] === 'that' &&
  (tags[i - 1] === 'VERB' || tags[i - 1] === 'ADJ') &&
  /^(?:PRON|DET|NOUN|PROPN)$/.test(tags[i + 1] ?? '');
