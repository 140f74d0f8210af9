import type { GistWords } from '../../lang/gists.ts';
import type { ReadSentence, Word } from './sentence.ts';

/** A few words of a sentence, as they stand in it one after the other. */
export interface Phrase {
  text: string;
  /** The words it takes, the last not included. */
  from: number;
  to: number;
  /** After how much of the sentence it is said, between 0 and 1. */
  share: number;
}

/** Words of a gist, and of one of its phrases, at most; so many phrases. */
export const MOST_WORDS = 9;
const MOST_PHRASES = 3;

/** What a word is worth on a screen: figures and nouns are what is remembered. */
const WORTH: Readonly<Record<string, number>> = {
  NUM: 3,
  NOUN: 1.6,
  PROPN: 1.6,
  VERB: 1,
  ADJ: 0.9,
  PART: 1.4,
  ADV: 0.35
};
/** What each word costs in room. */
const COST = 0.3;
const NOUN_LIKE = /^(?:NOUN|PROPN|NUM)$/;
/** What stands before a noun and belongs to it. */
const BEFORE_NOUN = /^(?:DET|ADJ|NUM|NOUN|PROPN)$/;

/**
 * A sentence in fewer than ten of its own words, in their order: its figures and nouns and what is done
 * with them. Nothing is written that it does not say.
 * @returns its phrases as they are said; none where no few words tell it
 */
export function gistOf(sentence: ReadSentence, most = MOST_WORDS): Phrase[] {
  const { words, known } = sentence;
  const start = known ? afterLead(sentence, known) : 0;
  const left = words.length - start;
  // A short sentence is its own gist.
  if (left <= most && left > 0) return [phraseOf(sentence, start, words.length)];
  if (!known) return [];
  const clauses = clausesOf(words, start, known);
  const chosen = chooseWithin(
    clauses.map((clause) => windowsOf(words, clause, most, known)),
    most
  );
  return chosen.map(({ from, to }) => phraseOf(sentence, from, to));
}

/** The first word after what only leads into a sentence. */
function afterLead({ text, words }: ReadSentence, known: GistWords): number {
  const lead = known.leads.exec(text)?.[0].length ?? 0;
  const first = words.findIndex((w) => w.from >= lead);
  return first > 0 && words.length - first >= 2 ? first : 0;
}

interface Span {
  from: number;
  to: number;
}

/** At its commas and the like, and before words that begin a clause. */
function clausesOf(words: readonly Word[], start: number, known: GistWords): Span[] {
  const clauses: Span[] = [];
  let from = start;
  for (let i = start; i < words.length; i++) {
    const { text, plain } = words[i]!;
    if (i > from && known.clauseStarts.has(plain) && beginsClause(words, i, known)) {
      clauses.push({ from, to: i });
      from = i;
    }
    if (/[,;:.!?–—)]["”’]*$/.test(text) || /^[–—-]$/.test(text)) {
      clauses.push({ from, to: i + 1 });
      from = i + 1;
    }
  }
  if (from < words.length) clauses.push({ from, to: words.length });
  return clauses.filter((c) => c.to > c.from);
}

/** "and" and the like join words as often as clauses: only what has a verb of its own is a clause. */
function beginsClause(words: readonly Word[], at: number, known: GistWords): boolean {
  if (!known.heads.has(words[at]!.plain)) return true;
  for (const { tag, text } of words.slice(at + 1, at + 1 + CLAUSE_REACH)) {
    if (tag === 'VERB' || tag === 'AUX') return true;
    if (/[,;:.!?–—)]["”’]*$/.test(text)) return false;
  }
  return false;
}
/** Words within which a clause has its verb. */
const CLAUSE_REACH = 5;

type Scored = Span & { worth: number };

/** A clause that is told whole reads best; a phrase more, or one of a single word, reads worse. */
const WHOLE = 1.5;
const PHRASE = 1.3;
const LONE = 1;
/** Windows of a clause that are looked at further. */
const KEPT_WINDOWS = 5;
/** What tells less than this is not worth a card. */
const ENOUGH = 0.9;

/** The stretches of a clause that tell most; none cuts a noun from what belongs to it. */
function windowsOf(
  words: readonly Word[],
  { from, to }: Span,
  most: number,
  known: GistWords
): Scored[] {
  const found: Scored[] = [];
  for (let a = from; a < to; a++) {
    if (!mayBegin(words, a, from, known)) continue;
    for (let b = Math.min(to, a + most); b > a; b--) {
      if (!mayEnd(words, b, to, known)) continue;
      const isWhole = b === to && words.slice(from, a).every((w) => isSilent(w, known));
      const worth =
        worthOf(words, a, b, known) - PHRASE + (isWhole ? WHOLE : 0) - (b - a === 1 ? LONE : 0);
      if (worth > 0) found.push({ from: a, to: b, worth });
    }
  }
  return found.sort((a, b) => b.worth - a.worth).slice(0, KEPT_WINDOWS);
}

/** Whether nothing is lost without it at the head of a clause. */
const isSilent = (word: Word, known: GistWords): boolean =>
  known.heads.has(word.plain) || known.doers.has(word.plain) || word.plain === '';

function mayBegin(words: readonly Word[], at: number, from: number, known: GistWords): boolean {
  const word = words[at]!;
  if (known.heads.has(word.plain) || word.plain === '') return false;
  const before = words[at - 1];
  if (at > from && known.denials.has(before?.plain ?? '')) return false;
  if (at === from) return true;
  // "we wind one warp" begins at "wind": who does it goes without saying.
  if (word.tag === 'VERB' && at === from + 1 && known.doers.has(before!.plain)) return true;
  // "and has finished by noon" begins at "finished".
  if (word.tag === 'VERB' && before!.tag === 'AUX')
    return words.slice(from, at - 1).every((w) => isSilent(w, known));
  if (at === from + 1 && known.heads.has(before!.plain)) return word.tag !== 'AUX';
  // "your hand" is not cut.
  if (before!.tag === 'PRON' && known.tails.has(before!.plain)) return false;
  return /^(?:DET|NUM|ADJ|NOUN|PROPN|ADP)$/.test(word.tag) && !BEFORE_NOUN.test(before!.tag);
}

function mayEnd(words: readonly Word[], end: number, to: number, known: GistWords): boolean {
  const last = words[end - 1]!;
  if (known.tails.has(last.plain) || last.plain === '') return false;
  if (end === to) return true;
  const next = words[end]!;
  return NOUN_LIKE.test(last.tag) && !NOUN_LIKE.test(next.tag) && !/^(?:of|per)$/.test(next.plain);
}

function worthOf(words: readonly Word[], from: number, to: number, known: GistWords): number {
  let worth = 0;
  let hasThing = false;
  for (let i = from; i < to; i++) {
    const { tag, plain } = words[i]!;
    const isSmall = known.tails.has(plain) && tag !== 'NUM' && !known.denials.has(plain);
    worth += (isSmall ? 0 : (WORTH[tag] ?? 0)) - COST;
    // "without paper" is the opposite of "paper".
    if (i === from && tag === 'ADP') worth += 0.5;
    hasThing ||= NOUN_LIKE.test(tag) || (tag === 'VERB' && !isSmall);
  }
  return hasThing ? worth : 0;
}

/** One window of each clause or none, those worth most that have room together, in their order. */
function chooseWithin(clauses: readonly Scored[][], most: number): Scored[] {
  interface Choice {
    worth: number;
    taken: Scored[];
  }
  // By the words used so far: the best that can be had for them.
  let best: (Choice | null)[] = [{ worth: 0, taken: [] }];
  for (const windows of clauses) {
    const next: (Choice | null)[] = [...best];
    for (const [used, choice] of best.entries()) {
      if (!choice || choice.taken.length >= MOST_PHRASES) continue;
      for (const window of windows) {
        const length = used + window.to - window.from;
        const worth = choice.worth + window.worth;
        if (length <= most && worth > (next[length]?.worth ?? -1))
          next[length] = { worth, taken: [...choice.taken, window] };
      }
    }
    best = next;
  }
  const richest = best.reduce((a, b) => (b && b.worth > (a?.worth ?? 0) ? b : a), null);
  return richest && richest.worth >= ENOUGH ? richest.taken : [];
}

/** Words of a sentence as they are shown: with a capital, without the mark at their end. */
export function phraseOf({ text, words }: ReadSentence, from: number, to: number): Phrase {
  const [first, last] = [words[from], words[to - 1]];
  if (!first || !last) return { text: '', from, to, share: 0 };
  const shown = text
    .slice(first.from, last.to)
    .replace(/^["“„(]+(?=\S)/u, (marks) =>
      text.slice(first.from, last.to).match(/["”)]/) ? marks : ''
    )
    .replace(/(?<![,;:.–—])[,;:.–—]+$/u, '')
    .trim();
  return {
    text: shown.replace(/^\p{Ll}/u, (c) => c.toUpperCase()),
    from,
    to,
    share: first.from / Math.max(1, text.length)
  };
}
