import type { Talk } from '../../text/talk.ts';
import { CLAUSE_SUBJECTS, SUBORDINATORS } from '../../lang/en/clauses.ts';
import type { WrittenWord } from './written.ts';

/** Words from which on a sentence may be a run-on, and the fewest that a sentence cut from it has. */
const RUN_ON = { from: 22, least: 6 };
/** The same where no comma stands before "and": speech has many of these, and only long ones tire. */
const UNMARKED = { from: 28, least: 10 };
/** What no sentence ends with. */
const OPEN_END = /^(?:ADP|AUX|DET|CCONJ|SCONJ|PART)$/;

/** What joins two clauses, and how many of its words go where the second becomes a sentence. */
const JOINTS: readonly { words: readonly string[]; dropped: number }[] = [
  { words: ['and', 'then', 'so'], dropped: 2 },
  { words: ['and', 'so'], dropped: 1 },
  { words: ['and', 'then'], dropped: 1 },
  { words: ['and'], dropped: 1 },
  { words: ['so'], dropped: 0 },
  { words: ['but'], dropped: 0 },
  { words: [], dropped: 0 }
];

/**
 * Ends a sentence where a run-on goes on with a clause of its own: "you fold it, and it goes back in,
 * so you need a lighter" to "You fold it. It goes back in. So you need a lighter". Only joining words
 * go; marks and capitals change. Nothing is cut where either side could not stand as a sentence.
 */
export function splitRunOns(talk: Talk, words: readonly WrittenWord[]): WrittenWord[] {
  if (words.length < RUN_ON.from) return [...words];
  const plain = (i: number) => talk.plain[words[i]?.at ?? -1] ?? '';
  const tag = (i: number) => talk.tags[words[i]?.at ?? -1] ?? '';
  const isClause = (from: number): boolean =>
    CLAUSE_SUBJECTS.has(plain(from))
      ? /n't$|'(?:s|re|ve|m|d|ll)$/.test(plain(from)) ||
        isVerb(tag(from + 1)) ||
        (isAdverb(tag(from + 1)) && isVerb(tag(from + 2)))
      : tag(from) === 'DET' &&
        (/^(?:NOUN|PROPN)$/.test(tag(from + 1))
          ? isVerb(tag(from + 2))
          : tag(from + 1) === 'ADJ' && tag(from + 2) === 'NOUN' && isVerb(tag(from + 3)));
  const isWhole = (from: number, to: number): boolean => {
    let hasVerb = false;
    for (let i = from; i < to; i++) {
      if (SUBORDINATORS.has(plain(i))) return false;
      hasVerb ||= isVerb(tag(i));
    }
    return hasVerb;
  };
  const cutAt = (i: number, start: number): { dropped: number } | null => {
    const isMarked = words[i]?.text.endsWith(',') ?? false;
    const joint = JOINTS.find(
      (j) =>
        (isMarked || j.dropped > 0) &&
        j.words.every((word, k) => plain(i + 1 + k) === word) &&
        isClause(i + 1 + j.words.length)
    );
    const { from, least } = isMarked ? RUN_ON : UNMARKED;
    if (!joint || words.length < from || i + 1 - start < least) return null;
    if (words.length - (i + 1) - joint.dropped < least) return null;
    const isOpen =
      OPEN_END.test(tag(i)) || plain(i) === 'just' || /\.\.\.$/.test(words[i]?.text ?? '');
    return isOpen || !isWhole(start, i + 1) ? null : joint;
  };
  const out: WrittenWord[] = [];
  let start = 0;
  for (let i = 0; i < words.length; i++) {
    const word = words[i] as WrittenWord;
    const cut = cutAt(i, start);
    out.push(cut ? { ...word, text: `${word.text.replace(/,$/, '')}.` } : word);
    if (!cut) continue;
    start = i + 1 + cut.dropped;
    const next = words[start] as WrittenWord;
    out.push({ ...next, text: capital(next.text) });
    i = start;
  }
  return out;
}

const capital = (text: string): string => text.replace(/\p{L}/u, (c) => c.toUpperCase());
const isVerb = (tag: string): boolean => tag === 'VERB' || tag === 'AUX';
const isAdverb = (tag: string): boolean => tag === 'ADV' || tag === 'PART';
