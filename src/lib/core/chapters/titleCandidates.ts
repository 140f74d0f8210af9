import type { Talk } from '../text/talk.ts';
import { isContentWord } from '../text/terms.ts';
import {
  BEFORE_ADVICE,
  EMPTY_NOUNS,
  FILLER_VERBS,
  IRREGULAR_PAST,
  PARTICLES,
  POSSESSIVE
} from '../lang/en/titles.ts';

/** A phrase of the talk that could be a title, as words `from` up to, not including, `to`. */
export interface TitleCandidate {
  from: number;
  to: number;
  stems: string[];
  /** What it is: a thing, an act upon it, a question; `run` where the grammar is not known. */
  kind: 'thing' | 'act' | 'question' | 'run';
}

export const TITLE_WORDS = { least: 2, most: 6 };
/** A question may be a little longer. */
const QUESTION_WORDS = { least: 3, most: 7 };
/**
 * Every phrase of some sentences that could be a title.
 * @param least words that a thing has at least: one alone is only a part of a title
 */
export function titleCandidates(
  talk: Talk,
  from: number,
  to: number,
  least = TITLE_WORDS.least
): TitleCandidate[] {
  const found: TitleCandidate[] = [];
  const isTagged = talk.tags.length > 0;
  for (let s = from; s < to; s++) {
    const sentence = talk.sentences[s];
    if (!sentence) continue;
    const asked = isTagged ? question(talk, sentence.from, sentence.to, sentence.text) : null;
    if (asked) found.push(asked);
    for (let i = sentence.from; i < sentence.to; i++) {
      for (let end = i + 1; end <= Math.min(sentence.to, i + TITLE_WORDS.most); end++) {
        // A phrase does not run over a comma.
        if (end - i > 1 && /[,;:.!?…]["”’)]*$/.test(talk.words[end - 2]?.text ?? '')) break;
        const candidate = isTagged ? phrase(talk, i, end, least) : run(talk, i, end);
        if (candidate) found.push(candidate);
      }
    }
  }
  return found;
}

/** A short question that stands by itself: "Do I need a heater?" */
function question(talk: Talk, from: number, to: number, text: string): TitleCandidate | null {
  if (!/\?["”’)]*$/.test(text)) return null;
  let head = from;
  while (/^(?:so|and|but|okay|now|well|right|like)$/.test(talk.plain[head] ?? '')) head++;
  const words = talk.plain.slice(head, to);
  if (words.length < QUESTION_WORDS.least || words.length > QUESTION_WORDS.most) return null;
  if (
    !/^(?:what|how|why|where|when|which|who|do|does|can|could|should|is|are|will|would)$/.test(
      words[0] ?? ''
    )
  )
    return null;
  // What it asks about is told in it.
  if (words.slice(1).some((w) => /^(?:this|that|it|they|them|these|those|he|she|there)$/.test(w)))
    return null;
  const stems = stemsOf(talk, words);
  return stems.length > 0 ? { from: head, to, stems, kind: 'question' } : null;
}

const THING =
  /^(?:(?:DET|PRON) )?(?:(?:ADJ|NOUN|PROPN|NUM|VERB) )*(?:(?<=(?:NOUN|PROPN) )(?:ADP|CCONJ) (?:(?:DET|PRON) )?(?:(?:ADJ|NOUN|PROPN|NUM) )*)?(?:NOUN|PROPN)$/;

/** An English noun phrase, or a verb with one. */
function phrase(talk: Talk, from: number, to: number, least: number): TitleCandidate | null {
  const tags = talk.tags.slice(from, to);
  const words = talk.plain.slice(from, to);
  const last = tags.length - 1;
  const isAct =
    (tags[0] === 'VERB' && isAdvice(talk, from)) ||
    // "Wind the yarn": a noun right before an article is a verb after all.
    (tags[0] === 'NOUN' && tags[1] === 'DET' && talk.sentences.some((s) => s.from === from));
  if (tags[0] === 'VERB' && !isAct && !words[0]?.endsWith('ed')) return null;
  // "called braid" is the end of "a thing called braid".
  if (words[0] === 'called' || words[0] === 'named') return null;
  if (isAct && last === 1 && words[0]?.endsWith('ing') && PARTICLES.has(words[1] ?? ''))
    return { from, to, stems: stemsOf(talk, words), kind: 'act' };
  if (!/^(?:NOUN|PROPN)$/.test(tags[last] ?? '') || EMPTY_NOUNS.has(words[last] ?? '')) return null;
  let head = isAct ? 1 : 0;
  if (isAct && PARTICLES.has(words[1] ?? '') && last > 1) head = 2;
  const body = tags.slice(head);
  if (body[0] === 'ADP' || (body[0] === 'PRON' && !POSSESSIVE.has(words[head] ?? ''))) return null;
  if (!THING.test(body.join(' '))) return null;
  if (
    /^(?:this|that|these|those|some|any|no|all|every|each|you|i|it|he|she|they|we)$/.test(
      words[head] ?? ''
    )
  )
    return null;
  if (words.some((w) => EMPTY_NOUNS.has(w) || /^(?:that|this)$/.test(w))) return null;
  if (words.some((w) => w.includes("'") && !w.endsWith("'s")) || words[last]?.endsWith("'s"))
    return null;
  const shown = withoutArticle(words, isAct);
  if (shown.length < (isAct ? TITLE_WORDS.least : least) || shown.length > TITLE_WORDS.most)
    return null;
  const stems = stemsOf(talk, words);
  if (stems.length === 0) return null;
  return { from, to, stems, kind: isAct ? 'act' : 'thing' };
}

/** Whether a verb tells what to do ("tie the cross", "tying the cross"), not what something did. */
function isAdvice(talk: Talk, at: number): boolean {
  const verb = talk.plain[at] ?? '';
  if (FILLER_VERBS.has(verb) || IRREGULAR_PAST.has(verb) || /(?:ed|[^s]s)$/.test(verb))
    return false;
  return (
    verb.endsWith('ing') ||
    talk.sentences.some((s) => s.from === at) ||
    BEFORE_ADVICE.has(talk.plain[at - 1] ?? '')
  );
}

/** In any language: words between two content words, without a stop. */
function run(talk: Talk, from: number, to: number): TitleCandidate | null {
  const words = talk.plain.slice(from, to);
  if (words.length < TITLE_WORDS.least || words.length > 4) return null;
  if (!isContentWord(words[0] ?? '', talk.language)) return null;
  if (!isContentWord(words.at(-1) ?? '', talk.language)) return null;
  const stems = stemsOf(talk, words);
  return stems.length < 2 ? null : { from, to, stems, kind: 'run' };
}

const stemsOf = (talk: Talk, words: readonly string[]): string[] =>
  words
    .filter((w) => isContentWord(w, talk.language) && !EMPTY_NOUNS.has(w))
    .map((w) => talk.language.stem(w.replace(/'s$/, '')));

/** An article at the head is left out: "warping board", not "a warping board". */
const withoutArticle = (words: readonly string[], isAct: boolean): readonly string[] =>
  !isAct && /^(?:a|an)$/.test(words[0] ?? '') ? words.slice(1) : words;

/** A candidate as it is shown: the speaker's words, with a capital. */
export function shownTitle(talk: Talk, { from, to, kind }: TitleCandidate): string {
  const words = talk.words
    .slice(from, to)
    .map((w) => w.text.replace(/^[("“]+|(?<![,;:.!?…"”)])[,;:.!?…"”)]+$/g, ''));
  const isHeadOfSentence = talk.sentences.some((s) => s.from === from);
  // A capital at the head of a sentence is not the word's own.
  if (isHeadOfSentence && !/^I\b/.test(words[0] ?? '')) words[0] = (words[0] ?? '').toLowerCase();
  const shown = capital(withoutArticle(words, kind === 'act').join(' '));
  return kind === 'question' ? `${shown}?` : shown;
}

export const capital = (text: string): string => text.replace(/\p{L}/u, (c) => c.toUpperCase());
