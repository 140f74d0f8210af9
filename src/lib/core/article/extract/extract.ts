import type { Chapter } from '../../chapters/chapter.ts';
import type { Talk } from '../../text/talk.ts';
import { extracted, subjectOf, writeAll, type Candidate } from './candidate.ts';
import { choose } from './choose.ts';
import type { Article } from './article.ts';
import { choicesOf, type SentenceChoice } from '../edit/choices.ts';
import { SHIPPED_JUDGE, type Judge } from './judge.ts';
import type { GivenPicture } from './givenPicture.ts';
import { layOut } from './layOut.ts';
import { withoutOveruse } from './overuse.ts';
import { wholesOf } from './wholes.ts';
import { pickAim, pickQuote, pickSummary, pickTakeaways } from './picks.ts';
import { mostMustNot, wordsWanted, type ArticleLength } from './length.ts';
import type { LeftOutReason } from './written.ts';

export interface ExtractOptions {
  length: ArticleLength;
  chapters: readonly Chapter[];
  pictures?: readonly GivenPicture[];
  /** What the user wants kept or dropped. */
  choices?: readonly SentenceChoice[];
  judge?: Judge;
}

/** Sentences below which there is no summary, no takeaways and no quotation. */
const FEW = 5;

/**
 * Draws an article from a talk: the most telling sentences, in their order, under the headings of
 * the chapters. Nothing is invented: each sentence is one of the talk's, shortened by rule.
 */
export function extractArticle(talk: Talk, options: ExtractOptions): Article {
  const leftOut = new Map<number, LeftOutReason>();
  const subject = subjectOf(talk);
  const { chapters, length, judge = SHIPPED_JUDGE } = options;
  const candidates = writeAll(
    talk,
    chapters,
    subject,
    judge,
    choicesOf(talk, options.choices ?? []),
    leftOut
  );
  const room = {
    wanted: wordsWanted(talk.words.length, length),
    // Of a few sentences all are wanted that can be.
    mostMustNot: candidates.length < FEW ? 1 : mostMustNot(length)
  };
  const wholes = wholesOf(talk, candidates);
  const chosen = choose(candidates, room, leftOut, wholes);
  const varied = withoutOveruse(
    talk,
    chosen,
    subject,
    leftOut,
    new Set([...wholes.keys()].map((step) => step.index))
  );
  const sentenceOf = (c: Candidate) => extracted(talk, c);
  // Of a few sentences nothing need be summed up: it would be said twice.
  const summed = candidates.length < FEW ? [] : candidates;
  const aim = pickAim(talk, summed);
  const summary = pickSummary(talk, summed);
  const takeaways = pickTakeaways(talk, summed);
  const used = new Set([...summary, ...takeaways].map((c) => c.index));
  const quote = pickQuote(talk, summed, used);
  const body = layOut(talk, varied, chapters, options.pictures ?? []);
  return {
    aim: aim && sentenceOf(aim),
    summary: summary.map(sentenceOf),
    takeaways: takeaways.map(sentenceOf),
    body,
    quote: quote && sentenceOf(quote),
    leftOut: [...leftOut]
      .map(([sentence, reason]) => ({ sentence, reason }))
      .sort((a, b) => a.sentence - b.sentence),
    words: varied.reduce((sum, c) => sum + c.words.length, 0),
    subject
  };
}
