import { GERMAN_POLLS } from '../lang/de/polls.ts';
import { ENGLISH_POLLS } from '../lang/en/polls.ts';
import type { PollWords } from '../lang/pollWords.ts';
import { tagWords } from '../text/tag.ts';
import { wordsOf } from '../text/terms.ts';
import { graphemesOf } from './limits.ts';
import { plainSentence, sourceSentences, type Spot, type UpdateSource } from './source.ts';

export interface PollLimits {
  /** Graphemes of the question and of an option, and most options. */
  question: number;
  option: number;
  most: number;
}

export interface Poll {
  kind: 'compared' | 'choice' | 'asked';
  question: string;
  /** Two or more, distinct and of one form. */
  options: string[];
  /** Where in the item it comes from. */
  from: Spot;
}

const length = (text: string): number => graphemesOf(text).length;
const capital = (text: string): string => text.charAt(0).toLocaleUpperCase() + text.slice(1);
const isEnglish = (source: UpdateSource): boolean => source.language.toLowerCase().startsWith('en');

/**
 * Polls from what an item compares, lets one choose between or asks; only in languages whose wordings are
 * known (English and German). An item that asks nothing gives none: nobody answers a question made up.
 * @returns at most three, the best first, each within the limits; none where the item has nothing to ask
 */
export function proposePolls(source: UpdateSource, limits: PollLimits): Poll[] {
  const code = source.language.toLowerCase().split(/[-_]/)[0];
  const words = code === 'en' ? ENGLISH_POLLS : code === 'de' ? GERMAN_POLLS : null;
  if (!words) return [];
  const all = [
    ...compared(source, limits, words),
    ...choices(source, words),
    ...asked(source, words)
  ];
  const fitting = all.filter(
    ({ question, options }) =>
      length(question) <= limits.question &&
      options.length >= 2 &&
      options.length <= limits.most &&
      options.every((o) => o.trim() !== '' && length(o) <= limits.option) &&
      new Set(options.map((o) => o.toLowerCase())).size === options.length
  );
  // One of each kind before a second of any.
  const ranked = fitting
    .map((poll) => ({ poll, nth: fitting.filter((p) => p.kind === poll.kind).indexOf(poll) }))
    .sort((a, b) => a.nth - b.nth);
  return ranked.slice(0, 3).map((r) => r.poll);
}

/** Points of a list and parts under headings: which of them would you try? */
function compared(source: UpdateSource, limits: PollLimits, words: PollWords): Poll[] {
  const polls: Poll[] = [];
  const add = (texts: { text: string; block: number }[]) => {
    const options = parallel(
      texts.map((t) => shortOption(t.text)).filter((o) => o !== '' && length(o) <= limits.option),
      source
    ).slice(0, limits.most);
    if (options.length >= 2 && texts[0])
      polls.push({
        kind: 'compared',
        question: words.tryFirst,
        options,
        from: { block: texts[0].block, from: 0 }
      });
  };
  let list: { text: string; block: number }[] = [];
  for (const [block, { kind, text }] of source.blocks.entries()) {
    if (kind === 'item') list.push({ text, block });
    else if (list.length > 0) {
      add(list);
      list = [];
    }
  }
  add(list);
  const headings = source.blocks.flatMap(({ kind, text }, block) =>
    kind === 'heading' && !text.endsWith('?') && !sameText(text, source.title)
      ? [{ text, block }]
      : []
  );
  if (headings.length >= 3) {
    const options = distinct(
      headings.map((h) => plainSentence(h.text)).filter((o) => length(o) <= limits.option)
    ).slice(0, limits.most);
    if (options.length >= 2)
      polls.push({
        kind: 'compared',
        question: words.hearMore,
        options,
        from: { block: headings[0]!.block, from: 0 }
      });
  }
  return polls;
}

/** The part of a point before its explanation. */
function shortOption(text: string): string {
  const head =
    plainSentence(text).split(/[:;–—]|\.\s|,\s(?=and|but|so|because|which|und|aber|weil)/u)[0] ??
    '';
  return capital(head.replace(/(?<![.,!?…])[.,!?…]+$/u, '').trim());
}

/**
 * Only options of one form: all begin as an order does, or all are things without a verb. What
 * tells of somebody or depends on another point is none.
 */
function parallel(options: readonly string[], source: UpdateSource): string[] {
  const unlike = distinct(options).filter((o) => wordsOf(o).length <= 10);
  if (!isEnglish(source)) return unlike;
  const formOf = (o: string) => {
    const words = wordsOf(o);
    const tags = tagWords(words);
    if (
      /^(?:i|we|you|it|he|she|they|this|that|these|those|if|when|then|the|there|and|but|so)\b/i.test(
        o
      )
    )
      return null;
    // “Use a board”: a noun is no noun before an article.
    const isOrder =
      tags[0] === 'VERB' || (tags[0] === 'NOUN' && /^(?:DET|PRON)$/.test(tags[1] ?? ''));
    if (isOrder) return tags.includes('AUX') ? null : 'act';
    return tags.some((t) => t === 'VERB' || t === 'AUX') ? null : 'thing';
  };
  const forms = unlike.map(formOf);
  const acts = forms.filter((f) => f === 'act').length;
  const common = acts >= forms.filter((f) => f === 'thing').length ? 'act' : 'thing';
  return unlike.filter((_, i) => forms[i] === common);
}

const sameText = (a: string, b: string): boolean => wordsOf(a).join(' ') === wordsOf(b).join(' ');

const distinct = (options: readonly string[]): string[] =>
  options.filter((o, i) => options.findIndex((p) => p.toLowerCase() === o.toLowerCase()) === i);

/** “wool or cotton”: two things of one kind between which the item lets one choose. */
function choices(source: UpdateSource, words: PollWords): Poll[] {
  const polls: Poll[] = [];
  const bare = (text = '') => text.replace(words.before, '').trim();
  for (const sentence of sourceSentences(source.blocks)) {
    for (const match of sentence.text.matchAll(words.choice)) {
      const [a, b] = [bare(match[1]), bare(match[2])];
      if (!a || !b || a.toLowerCase() === b.toLowerCase()) continue;
      if (isEnglish(source) && !sameKind(a, b)) continue;
      polls.push({
        kind: 'choice',
        question: words.which(capital(a), b),
        options: [capital(a), capital(b)],
        from: { block: sentence.block, from: sentence.from }
      });
    }
  }
  return polls;
}

/** Whether both end in a noun: only things can be chosen between without the rest of the sentence. */
function sameKind(a: string, b: string): boolean {
  const last = (text: string) => tagWords(wordsOf(text)).at(-1);
  return last(a) === 'NOUN' && last(b) === 'NOUN' && wordsOf(a).length === wordsOf(b).length;
}

/** A question that the item itself puts to its reader, to be answered yes or no. */
function asked(source: UpdateSource, words: PollWords): Poll[] {
  return sourceSentences(source.blocks)
    .filter(
      (s) =>
        s.text.endsWith('?') &&
        words.yesNo.test(s.text) &&
        !/\b(?:or|it|that|this|these|those|they|them|hear|see|there|here)\b/i.test(s.text)
    )
    .map((s) => ({
      kind: 'asked' as const,
      question: s.text,
      options: [...words.answers],
      from: { block: s.block, from: s.from }
    }));
}
