import type { Chapter } from '../../chapters/chapter.ts';
import type { Talk } from '../../text/talk.ts';
import { usualRate } from '../../text/vectors.ts';
import { bare } from '../../text/bare.ts';
import type { ArticleSentence } from './article.ts';
import type { SentenceChoice } from '../edit/choices.ts';
import { judgeByTerms, judgeSentences, type Judge, type Judgement } from './judge.ts';
import { leansOnBefore } from './leaning.ts';
import { writeSentence } from './spoken.ts';
import type { LeftOutReason, WrittenWord } from './written.ts';

/** A sentence of the talk as it would be written, and how it is judged. */
export interface Candidate extends Judgement {
  index: number;
  words: WrittenWord[];
  stems: ReadonlySet<string>;
  isQuestion: boolean;
  /** The user wants it, whatever it says. */
  isKept: boolean;
  dependsOnPrevious: boolean;
  chapter: number;
}

/** The stems that the talk comes back to most, for how usual they are. */
export function subjectOf(talk: Talk): string[] {
  const counts = new Map<string, number>();
  for (const stem of talk.stems.flat()) counts.set(stem, (counts.get(stem) ?? 0) + 1);
  const total = Math.max(1, talk.words.length);
  return [...counts]
    .filter(([, n]) => n > 1)
    .map(([stem, n]) => {
      const expected = (total * (talk.language.code === 'en' ? usualRate(stem) : 0.05)) / 1000;
      return { stem, n, score: n * Math.log(Math.max(1.01, n / expected)) };
    })
    .sort((a, b) => b.score - a.score)
    .slice(0, Math.max(8, Math.round(Math.sqrt(total))))
    .map(({ stem }) => stem);
}

/** Every sentence that is fit to be written; the others are left out with their reason. */
export function writeAll(
  talk: Talk,
  chapters: readonly Chapter[],
  subject: readonly string[],
  judge: Judge,
  choices: ReadonlyMap<number, SentenceChoice['choice']>,
  leftOut: Map<number, LeftOutReason>
): Candidate[] {
  const chapterAt = chapterOfSentences(talk, chapters);
  const judgements =
    talk.language.code === 'en'
      ? judgeSentences(talk, subject, judge)
      : judgeByTerms(talk, subject);
  return talk.sentences.flatMap((_, index) => {
    const choice = choices.get(index);
    if (choice === 'drop') {
      leftOut.set(index, 'dropped-by-hand');
      return [];
    }
    const written = writeSentence(talk, index, choice === 'keep');
    if ('leftOut' in written) {
      leftOut.set(index, written.leftOut);
      return [];
    }
    const { words } = written;
    return [
      {
        index,
        words,
        stems: new Set(talk.stems[index]),
        ...(judgements[index] ?? { must: 0, mustNot: 1, takeaway: 0 }),
        isQuestion: /\?["”’)]*$/.test(words.at(-1)?.text ?? ''),
        isKept: choice === 'keep',
        dependsOnPrevious: leansOnBefore(talk, words),
        chapter: chapterAt[index] ?? 0
      }
    ];
  });
}

/** The chapter in which each sentence is said. */
const chapterOfSentences = (talk: Talk, chapters: readonly Chapter[]): number[] =>
  talk.sentences.map(({ start }) =>
    Math.max(
      0,
      chapters.findLastIndex((c) => c.start <= start + 1)
    )
  );

/** Share of stems that two sentences have in common. */
export function likeness(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  let both = 0;
  for (const stem of a) if (b.has(stem)) both++;
  return both / (a.size + b.size - both || 1);
}

export const textOf = (words: readonly WrittenWord[]): string => words.map((w) => w.text).join(' ');

export function extracted(talk: Talk, { index, words }: Candidate): ArticleSentence {
  const first = talk.words[words[0]?.at ?? 0];
  const last = talk.words[words.at(-1)?.at ?? 0];
  return { text: textOf(words), start: first?.start ?? 0, end: last?.end ?? 0, from: index };
}

/** The first three words. */
export const opening = (words: readonly WrittenWord[]): string =>
  words
    .slice(0, 3)
    .map((w) => bare(w.text))
    .join(' ');
