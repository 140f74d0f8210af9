import {
  BECAUSE,
  COUNTED_IDLY,
  DEFINES,
  DENIED,
  GERUND,
  HANGING_IF,
  NO_TERM,
  ON_PRONOUN,
  POINTS,
  STEP_LEAD,
  SUPPOSED,
  UNNAMED,
  UNQUOTABLE,
  VAGUE
} from '../lang/en/quiz.ts';
import type { TextBlock } from '../markup/textBlocks.ts';
import { languageOf } from '../text/language.ts';
import { tagWords } from '../text/tag.ts';
import { contentStems, wordsOf } from '../text/terms.ts';
import { hashOf } from '../model/hash.ts';
import { graphemesOf } from './limits.ts';
import { numbersIn, otherNumbers, valueOf } from './numbers.ts';
import {
  plainSentence,
  sourceSentences,
  standsAlone,
  type SourceSentence,
  type Spot,
  type UpdateSource
} from './source.ts';
import { keyTerms } from './terms.ts';

export interface QuizLimits {
  /** Graphemes of the question and of an option, and most options (at most four are made). */
  question: number;
  option: number;
  most: number;
}

export interface QuizQuestion {
  kind: 'number' | 'term' | 'next-step' | 'reason';
  question: string;
  /** In a fixed order that is chance for the reader; exactly one is right. */
  options: { text: string; right: boolean }[];
  /** What the item says. */
  why: string;
  /** Where it says so. */
  from: Spot;
  /** Between 0 and 1: how sure it is that the question is sound. */
  score: number;
}

export type NoQuizReason = 'language' | 'nothing-stated' | 'too-unsure' | 'too-long';

/** Questions below are not proposed. */
export const SCORE_FLOOR = 0.6;
const MAX_QUESTIONS = 8;
const MIN_OPTIONS = 3;
const MAX_OPTIONS = 4;
const BLANK = '____';
/** Words of a question among which its subject must be named. */
const NAMED_BY = 5;

/**
 * Questions on what an item teaches, each answered by one of its sentences: its numbers, terms it
 * explains, steps in their order, and reasons. Wrong options are of the same kind and come from the
 * item where they can.
 * @returns the surest first; where there is none, why not
 */
export function proposeQuiz(
  source: UpdateSource,
  limits: QuizLimits
): { questions: QuizQuestion[]; none: NoQuizReason | null } {
  if (!source.language.toLowerCase().startsWith('en')) return { questions: [], none: 'language' };
  const sentences = sourceSentences(source.blocks);
  const found = [
    ...nextSteps(source.blocks),
    ...termsExplained(source, sentences),
    ...amounts(sentences),
    ...reasons(sentences)
  ];
  if (found.length === 0) return { questions: [], none: 'nothing-stated' };
  const most = Math.min(MAX_OPTIONS, limits.most);
  const fitting = found.flatMap((q) => fit(q, most, limits) ?? []);
  if (fitting.length === 0) return { questions: [], none: 'too-long' };
  const sure = fitting
    .filter((q) => q.score >= SCORE_FLOOR)
    .sort((a, b) => b.score - a.score || a.from.block - b.from.block || a.from.from - b.from.from);
  // One question for each sentence: a second one would give the first away.
  const asked = new Set<string>();
  const questions = sure.filter((q) => {
    if (asked.has(q.why)) return false;
    asked.add(q.why);
    return true;
  });
  return {
    questions: questions.slice(0, MAX_QUESTIONS),
    none: questions.length === 0 ? 'too-unsure' : null
  };
}

interface Draft extends Omit<QuizQuestion, 'options'> {
  right: string;
  /** Best first. */
  wrong: string[];
}

/** The question within the limits of a place, its options in an order of chance; null where it does not fit. */
function fit(draft: Draft, most: number, limits: QuizLimits): QuizQuestion | null {
  const { right, wrong, ...question } = draft;
  const length = (text: string) => graphemesOf(text).length;
  const taken = wrong
    .filter((w, i) => wrong.indexOf(w) === i && w.toLowerCase() !== right.toLowerCase())
    .filter((w) => length(w) <= limits.option)
    .slice(0, most - 1);
  if (length(question.question) > limits.question || length(right) > limits.option) return null;
  if (taken.length + 1 < MIN_OPTIONS) return null;
  const options = [right, ...taken].map((text) => ({ text, right: text === right }));
  const order = (text: string) => hashOf(`${question.question}/${text}`);
  // Numbers are easiest to read in their order, which gives nothing away.
  options.sort((a, b) =>
    question.kind === 'number' ? valueOf(a.text) - valueOf(b.text) : order(a.text) - order(b.text)
  );
  return { ...question, options };
}

const capital = (text: string): string => text.charAt(0).toLocaleUpperCase() + text.slice(1);
const quoted = (text: string): string => `“${text.replace(/[“”]/g, '').trim()}”`;

/** A sentence that can be quoted by itself and told right or wrong. */
function isQuotable(sentence: SourceSentence): boolean {
  const words = wordsOf(sentence.text).length;
  return (
    sentence.kind !== 'quote' &&
    words >= 5 &&
    words <= 32 &&
    /[.!]["”’)]*$/.test(sentence.text) &&
    !/https?:|@|[:;]$/.test(sentence.text) &&
    standsAlone(sentence.text, 'en') &&
    !UNNAMED.test(wordsOf(sentence.text).slice(0, NAMED_BY).join(' ')) &&
    !HANGING_IF.test(sentence.text) &&
    !UNQUOTABLE.test(sentence.text)
  );
}

function amounts(sentences: readonly SourceSentence[]): Draft[] {
  const drafts: Draft[] = [];
  for (const sentence of sentences) {
    if (!isQuotable(sentence)) continue;
    const { text } = sentence;
    const numbers = numbersIn(text);
    if (numbers.length === 0 || numbers.length > 3 || !hasVerb(text) || DENIED.test(text)) continue;
    const used = new Set(numbers.map((n) => n.value));
    for (const number of numbers) {
      const before = text.slice(0, number.from);
      const after = text.slice(number.to);
      const next = wordsOf(after)[0] ?? '';
      const isPercent = /^\s*(?:%|per cent|percent)/.test(after);
      const unit = /^\s+\p{L}/u.test(after) ? unitAfter(after) : null;
      if (POINTS.test(before) || /^\s*(?:or|to|–|-)\s*(?:\d|\p{L}+\s+\p{L}+s\b)/u.test(after))
        continue;
      if (!isPercent && !unit) continue;
      // Twice in one sentence, and the blank is filled by what stands beside it.
      if (numbers.filter((n) => n.value === number.value).length > 1) continue;
      const wrong = otherNumbers(number, 3, used, isPercent ? 100 : Infinity, text);
      let score = 0.72;
      if (number.value > 4) score += 0.08;
      if (numbers.length === 1) score += 0.08;
      if (VAGUE.test(before.slice(-16))) score -= 0.06;
      if (wordsOf(text).length > 24) score -= 0.06;
      if (COUNTED_IDLY.test(next)) score -= 0.2;
      if (SUPPOSED.test(text)) score -= 0.15;
      drafts.push({
        kind: 'number',
        question: `Which number belongs here? ${quoted(`${before}${BLANK}${after}`)}`,
        right: number.written,
        wrong,
        why: text,
        from: { block: sentence.block, from: sentence.from },
        score
      });
    }
  }
  return drafts;
}

const hasVerb = (text: string): boolean =>
  tagWords(wordsOf(text)).some((tag) => tag === 'VERB' || tag === 'AUX');

/** The noun that is counted: at most one word stands before it. */
function unitAfter(after: string): string | null {
  const words = wordsOf(after).slice(0, 3);
  const tags = tagWords(words);
  // “240 ends”: what is counted has an s, whatever else the word may be.
  const at = tags.findIndex(
    (tag, i) => tag === 'NOUN' || tag === 'PROPN' || (i === 0 && /[^s]s$/.test(words[0] ?? ''))
  );
  return at === 0 || (at === 1 && tags[0] === 'ADJ') ? (words[at] ?? null) : null;
}

/** “A warp is a set of threads …”: which term is it that is explained? */
function termsExplained(source: UpdateSource, sentences: readonly SourceSentence[]): Draft[] {
  const spoken = languageOf('en');
  const all = source.blocks.map((b) => b.text);
  const terms = keyTerms([source.title, ...all], 'en').map((t) => t.term);
  const drafts: Draft[] = [];
  for (const sentence of sentences) {
    const { text } = sentence;
    const match = DEFINES.exec(text);
    const gerund = match ? null : GERUND.exec(text);
    if ((!match && !gerund) || sentence.kind === 'quote' || wordsOf(text).length > 32) continue;
    if (sentence.kind === 'item' && !/[.!]$/.test(text)) continue;
    const term = (match?.[2] ?? gerund?.[1] ?? '').trim();
    const rest = match ? `${match[3]} ${match[4]}` : `${gerund![2]} ${gerund![3]}`;
    const words = wordsOf(term);
    const stems = contentStems(words, spoken);
    if (stems.length === 0 || words.length > 2) continue;
    if (NO_TERM.test(term)) continue;
    const inRest = new Set(contentStems(wordsOf(rest), spoken));
    if (stems.some((s) => inRest.has(s))) continue;
    const isPlural = match?.[3] === 'are';
    const isOfKind = (t: string) => {
      const own = contentStems(wordsOf(t), spoken);
      if (own.length === 0 || own.some((s) => inRest.has(s) || stems.includes(s))) return false;
      if (gerund) return /^[\p{L}-]+ing$/u.test(t);
      const last = wordsOf(t).at(-1) ?? '';
      return (
        tagWords([match?.[1]?.toLowerCase() ?? 'the', ...wordsOf(t)]).at(-1) === 'NOUN' &&
        (last.endsWith('s') && !last.endsWith('ss')) === isPlural
      );
    };
    const wrong = (gerund ? gerunds(all) : terms).filter(isOfKind).slice(0, 3);
    const article = match?.[1] ?? '';
    // “A” or “an” would give it away.
    const shown = /^an?$/i.test(article) ? 'A(n)' : article;
    const cap = (t: string) => (article ? t : capital(t));
    drafts.push({
      kind: 'term',
      question: `What is explained here? ${quoted(`${shown ? `${shown} ` : ''}${BLANK} ${rest}`)}`,
      right: cap(term),
      wrong: wrong.map(cap),
      why: text,
      from: { block: sentence.block, from: sentence.from },
      score:
        (standsAlone(text, 'en') ? 0.74 : 0.5) +
        (wrong.length === 3 ? 0.06 : 0) -
        (article === 'The' ? 0.06 : 0)
    });
  }
  return drafts;
}

const gerunds = (texts: readonly string[]): string[] => [
  ...new Set(
    texts.flatMap((t) =>
      wordsOf(t).filter(
        (w) =>
          w.length > 5 &&
          w.endsWith('ing') &&
          !/^(?:nothing|something|anything|everything|during|morning|evening|being|having|doing|going)$/.test(
            w
          )
      )
    )
  )
];

/** Steps of a numbered list: which comes right after another? */
function nextSteps(blocks: readonly TextBlock[]): Draft[] {
  const drafts: Draft[] = [];
  let list: { text: string; block: number }[] = [];
  const close = () => {
    const steps = list.map(({ text, block }) => ({ text: stepOf(text), block }));
    if (steps.length >= 4 && new Set(steps.map((s) => s.text)).size === steps.length)
      for (const [i, step] of steps.slice(0, -1).entries()) {
        const next = steps[i + 1]!;
        drafts.push({
          kind: 'next-step',
          question: `What comes right after this step? ${quoted(step.text)}`,
          right: next.text,
          wrong: byNearness(steps, i).map((s) => s.text),
          why: plainSentence(list[i + 1]!.text),
          from: { block: next.block, from: 0 },
          score: i === 0 ? 0.84 : 0.86
        });
      }
    list = [];
  };
  for (const [block, { step, text }] of blocks.entries()) {
    if (step === undefined || step === 1) close();
    if (step !== undefined) list.push({ text, block });
  }
  close();
  return drafts;
}

/** Neighbours first, but never the step itself nor the next one. */
const byNearness = <T>(steps: readonly T[], i: number): T[] =>
  steps
    .map((step, k) => ({ step, k }))
    .filter(({ k }) => k !== i && k !== i + 1)
    .sort((a, b) => Math.abs(a.k - i - 1) - Math.abs(b.k - i - 1))
    .map(({ step }) => step);

const stepOf = (text: string): string =>
  capital(
    (plainSentence(text).split(/(?<=[.!?])\s/)[0] ?? '')
      .replace(/(?<![.!])[.!]+$/, '')
      .replace(STEP_LEAD, '')
  );

/** “… because …”: which reason is given? The others are reasons of the same item. */
function reasons(sentences: readonly SourceSentence[]): Draft[] {
  const spoken = languageOf('en');
  const given = sentences.flatMap((sentence) => {
    const match = BECAUSE.exec(sentence.text);
    return match ? [{ sentence, what: match[1]!, reason: match[3]! }] : [];
  });
  const stems = given.map((g) => new Set(contentStems(wordsOf(g.reason), spoken)));
  return given.flatMap(({ sentence, what, reason }, i) => {
    if (!isQuotable(sentence)) return [];
    // A reason that shares its words might be right as well.
    const wrong = given.filter(
      (g, k) =>
        k !== i &&
        !standsOnPronoun(g.reason) &&
        [...stems[k]!].every((s) => !stems[i]!.has(s)) &&
        Math.abs(wordsOf(g.reason).length - wordsOf(reason).length) <= 8
    );
    return [
      {
        kind: 'reason' as const,
        question: `Which reason is given? ${quoted(`${what} because ${BLANK}`)}`,
        right: reason,
        wrong: wrong.map((g) => g.reason),
        why: sentence.text,
        from: { block: sentence.block, from: sentence.from },
        score: standsOnPronoun(reason) ? 0.5 : 0.66
      }
    ];
  });
}

const standsOnPronoun = (reason: string): boolean => ON_PRONOUN.test(reason);
