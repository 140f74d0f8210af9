import type { Talk } from '../language/talk.ts';
import { usualRate } from '../language/vectors.ts';
import { isContentWord } from '../language/terms.ts';

const WORDS = { least: 2, most: 6 };
/** Nouns and the like that say nothing as a title. */
const EMPTY = new Set(
  'thing things way ways bit lot kind sort time times one ones part step video today question minute minutes moment people everybody someone something anything point end side sides day days person guy guys stuff idea rest same'.split(
    ' '
  )
);
const FILLER_VERBS = new Set(
  'be is are was were have has had do does did say says said know think mean want like go going get got let come see look need make sure show tell talk call called start begin want wanna gonna try happen keep use'.split(
    ' '
  )
);
const NOUN = new Set(['NOUN', 'PROPN']);

interface Candidate {
  from: number;
  to: number;
  stems: string[];
  /** A verb at the head: "tie the cross" rather than "the cross". */
  isAction: boolean;
}

/**
 * A title for each part, of 2 to 6 of the speaker's own words: the phrase whose words are most
 * this part's own against the rest, none used twice. A part without any is called by its first
 * content words.
 * @param starts index of each part's first sentence
 */
export function titleParts(talk: Talk, starts: readonly number[]): string[] {
  const parts = starts.map((from, k) => ({ from, to: starts[k + 1] ?? talk.sentences.length }));
  const uses = parts.map(({ from, to }) => countStems(talk.stems.slice(from, to).flat()));
  const total = countStems(talk.stems.flat());
  const taken = new Set<string>();
  return parts
    .map((part, k) => {
      const own = uses[k] ?? new Map<string, number>();
      const inPart = [...own.values()].reduce((sum, n) => sum + n, 0) || 1;
      const all = [...total.values()].reduce((sum, n) => sum + n, 0) || 1;
      // Signed root of the log-likelihood ratio (Dunning 1993) of a stem in this part.
      const telling = (stem: string): number => {
        const here = own.get(stem) ?? 0;
        const everywhere = total.get(stem) ?? 1;
        const expected = (everywhere * inPart) / all;
        if (parts.length === 1) return Math.sqrt(here) * 0.8;
        const ratio = 2 * (here * Math.log(Math.max(here, 0.1) / expected) - here + expected);
        // A word said once may be chance: the doorbell, the telephone.
        return (here > expected ? 1 : -1) * Math.sqrt(Math.max(0, ratio)) * (here > 1 ? 1 : 0.4);
      };
      const ranked = candidates(talk, part.from, part.to)
        .map((c) => ({
          ...c,
          key: [...c.stems].sort().join(' '),
          score: scoreOf(talk, c, telling, part)
        }))
        .sort((a, b) => b.score - a.score || a.from - b.from);
      const chosen = ranked.find((c) => !taken.has(c.key) && !isInside(c.stems, taken));
      const shown = chosen ? shownPhrase(talk, chosen) : firstWords(talk, part.from, part.to);
      if (chosen) taken.add(chosen.key);
      return shown;
    })
    .map((title, k, all) => {
      const before = all.slice(0, k).filter((other) => other === title).length;
      return before > 0 ? `${title} (${before + 1})` : title;
    });
}

/** The phrases that a whole talk is most about, best first; none holds another. */
export function titlePhrases(talk: Talk, most: number): string[] {
  const uses = countStems(talk.stems.flat());
  const part = { from: 0, to: talk.sentences.length };
  const said = new Map<string, { candidate: Candidate; count: number }>();
  for (const candidate of candidates(talk, part.from, part.to)) {
    const key = candidate.stems.join(' ');
    const known = said.get(key);
    if (known) known.count++;
    else said.set(key, { candidate, count: 1 });
  }
  const taken = new Set<string>();
  const phrases: string[] = [];
  const ranked = [...said.values()]
    .map(({ candidate, count }) => ({
      candidate,
      score: count * 0.5 + scoreOf(talk, candidate, (stem) => Math.sqrt(uses.get(stem) ?? 0), part)
    }))
    .sort((a, b) => b.score - a.score);
  for (const { candidate } of ranked) {
    if (phrases.length >= most) break;
    if (isInside(candidate.stems, taken)) continue;
    taken.add([...candidate.stems].sort().join(' '));
    phrases.push(shownPhrase(talk, candidate));
  }
  return phrases;
}

const isInside = (stems: readonly string[], taken: ReadonlySet<string>): boolean =>
  [...taken].some((key) => {
    const other = key.split(' ');
    return other.every((s) => stems.includes(s)) || stems.every((s) => other.includes(s));
  });

function countStems(stems: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const stem of stems) counts.set(stem, (counts.get(stem) ?? 0) + 1);
  return counts;
}

function scoreOf(
  talk: Talk,
  candidate: Candidate,
  telling: (stem: string) => number,
  part: { from: number; to: number }
): number {
  const distinct = [...new Set(candidate.stems)];
  const sum = distinct.reduce((total, stem) => total + telling(stem), 0);
  const first = talk.sentences[part.from]?.from ?? 0;
  const last = talk.sentences[part.to - 1]?.to ?? 0;
  // What a part is about is said near its beginning.
  const early = 1 - (candidate.from - first) / Math.max(40, last - first);
  const rarity = distinct.reduce((r, stem) => r + (usualRate(stem) < 0.05 ? 0.15 : 0), 0);
  const isOpening = candidate.from < (talk.sentences[part.from + 2]?.from ?? last);
  const words = talk.plain.slice(candidate.from, candidate.to);
  const tags = talk.tags.slice(candidate.from, candidate.to);
  // "the fold for that reason" is part of a sentence; "the first half of the stitch" is a thing.
  const loose = tags.filter((tag, i) => tag === 'ADP' && words[i] !== 'of').length;
  const counted = tags.filter((tag) => tag === 'NUM').length;
  const owned = words.filter((w) => POSSESSIVE.has(w)).length;
  return (
    sum / Math.sqrt(distinct.length + 0.6) +
    0.6 * early +
    (isOpening ? 0.9 : 0) +
    (candidate.isAction ? 0.45 : 0) +
    rarity -
    0.9 * loose -
    0.5 * counted -
    0.3 * owned -
    (words.length > 4 ? 0.4 : 0)
  );
}

function candidates(talk: Talk, from: number, to: number): Candidate[] {
  const found: Candidate[] = [];
  for (let s = from; s < to; s++) {
    const sentence = talk.sentences[s];
    if (!sentence) continue;
    for (let i = sentence.from; i < sentence.to; i++) {
      for (let end = i + 1; end <= Math.min(sentence.to, i + WORDS.most); end++) {
        // A phrase does not run over a comma.
        if (end - i > 1 && /[,;:.!?…]["”’)]*$/.test(talk.words[end - 2]?.text ?? '')) break;
        const candidate = talk.tags.length > 0 ? phrase(talk, i, end) : run(talk, i, end);
        if (candidate) found.push(candidate);
      }
    }
  }
  return found;
}

/** An English noun phrase, or a verb with one. */
function phrase(talk: Talk, from: number, to: number): Candidate | null {
  const tags = talk.tags.slice(from, to);
  const words = talk.plain.slice(from, to);
  const last = tags.length - 1;
  if (!NOUN.has(tags[last] ?? '') || EMPTY.has(words[last] ?? '')) return null;
  let head = 0;
  const isAction = tags[0] === 'VERB';
  if (isAction && !isAdvice(talk, from)) return null;
  if (isAction) head = 1;
  const body = tags.slice(head);
  if (body[0] === 'ADP' || (body[0] === 'PRON' && !POSSESSIVE.has(words[head] ?? ''))) return null;
  if (
    !/^(?:(?:DET|PRON) )?(?:(?:ADJ|NOUN|PROPN|NUM) )*(?:ADP (?:(?:DET|PRON) )?(?:(?:ADJ|NOUN|PROPN) )*)?(?:NOUN|PROPN)$/.test(
      body.join(' ')
    )
  ) {
    return null;
  }
  if (
    /^(?:this|that|these|those|some|any|no|all|every|each|you|i|it|he|she|they|we)$/.test(
      words[head] ?? ''
    )
  )
    return null;
  if (words.some((w) => w.includes("'") && !w.endsWith("'s"))) return null;
  const shown = withoutArticle(words, isAction);
  if (shown.length < WORDS.least || shown.length > WORDS.most) return null;
  const stems = stemsOf(talk, words);
  if (
    stems.length === 0 ||
    (!isAction && stems.length < 2 && shown.length < 3 && tags[0] !== 'DET')
  )
    return null;
  return { from, to, stems, isAction };
}

const POSSESSIVE = new Set('your my our his her their its'.split(' '));
const AFTER = new Set(
  "to you we can should must will could let's and then now just always never next so first please don't by".split(
    ' '
  )
);
const IRREGULAR_PAST = new Set(
  'took left wound gave made got found cut had told kept held went came began broke ran lost bought thought felt fell stood sat wove spun threw wrote drew grew knew lay'.split(
    ' '
  )
);

/** Whether a verb tells what to do ("tie the cross", "tying the cross"), not what something did. */
function isAdvice(talk: Talk, at: number): boolean {
  const verb = talk.plain[at] ?? '';
  if (FILLER_VERBS.has(verb) || IRREGULAR_PAST.has(verb) || /(?:ed|[^s]s)$/.test(verb))
    return false;
  return talk.sentences.some((s) => s.from === at) || AFTER.has(talk.plain[at - 1] ?? '');
}

/** In any language: words between two content words, without a stop. */
function run(talk: Talk, from: number, to: number): Candidate | null {
  const words = talk.plain.slice(from, to);
  if (words.length < WORDS.least || words.length > 4) return null;
  if (!isContentWord(words[0] ?? '', talk.language)) return null;
  if (!isContentWord(words.at(-1) ?? '', talk.language)) return null;
  const stems = stemsOf(talk, words);
  return stems.length < 2 ? null : { from, to, stems, isAction: false };
}

const stemsOf = (talk: Talk, words: readonly string[]): string[] =>
  words
    .filter((w) => isContentWord(w, talk.language) && !EMPTY.has(w))
    .map((w) => talk.language.stem(w.replace(/'s$/, '')));

/** An article at the head is left out: "warping board", not "a warping board". */
const withoutArticle = (words: readonly string[], isAction: boolean): readonly string[] =>
  !isAction && /^(?:a|an)$/.test(words[0] ?? '') ? words.slice(1) : words;

function shownPhrase(talk: Talk, { from, to, isAction }: Candidate): string {
  const words = talk.words
    .slice(from, to)
    .map((w) => w.text.replace(/^[("“]+|[,;:.!?…"”)]+$/g, ''));
  const isHeadOfSentence = talk.sentences.some((s) => s.from === from);
  // A capital at the head of a sentence is not the word's own.
  if (isHeadOfSentence && !/^I\b/.test(words[0] ?? '')) words[0] = (words[0] ?? '').toLowerCase();
  return capital(withoutArticle(words, isAction).join(' '));
}

function firstWords(talk: Talk, from: number, to: number): string {
  for (let s = from; s < to; s++) {
    const { from: first = 0, to: last = 0 } = talk.sentences[s] ?? {};
    const words = talk.plain.slice(first, last);
    const at = words.findIndex((w) => isContentWord(w, talk.language));
    if (at >= 0) return capital(words.slice(at, at + 4).join(' '));
  }
  return capital(
    talk.plain
      .slice(talk.sentences[from]?.from ?? 0)
      .slice(0, 4)
      .join(' ')
  );
}

const capital = (text: string): string => text.replace(/\p{L}/u, (c) => c.toUpperCase());
