import { expose } from 'comlink';
import { drawArticle, type ArticleLength } from '$lib/core/article/draw.ts';
import type { GivenPicture } from '$lib/core/article/layOut.ts';
import { guideLength } from '$lib/core/article/guidance.ts';
import { phraseStandings } from '$lib/core/article/phrases.ts';
import { proposeExcerpt, proposeTitles } from '$lib/core/article/proposals.ts';
import { reviewText } from '$lib/core/article/review.ts';
import { textBlocks } from '$lib/core/article/textBlocks.ts';
import { CaptionError, type Cue } from '$lib/core/captions/cue.ts';
import { cuesFromSentences } from '$lib/core/captions/fromSentences.ts';
import { readCaptions } from '$lib/core/captions/read.ts';
import type { TidyOptions } from '$lib/core/captions/tidy.ts';
import type { Chapter } from '$lib/core/chapters/chapter.ts';
import { proposeChapters } from '$lib/core/chapters/propose.ts';
import { talkParagraphs } from '$lib/core/language/paragraphs.ts';
import { readTalk, type Talk } from '$lib/core/language/talk.ts';
import { EXCERPT_LIMIT } from '$lib/core/article/checks.ts';

/** The talk that is on the desk; the worker keeps one. */
let talk: Talk | null = null;

const api = {
  /** Cues of a caption file, or what is wrong with it and in which line. */
  readFile(text: string): { cues: Cue[]; isTimed: boolean } | { message: string; line: number } {
    try {
      const { cues, isTimed } = readCaptions(text);
      return { cues, isTimed };
    } catch (error) {
      if (error instanceof CaptionError) return { message: error.message, line: error.line };
      throw error;
    }
  },

  /** From cues to sentences and proposals for chapters. Null where nothing is said. */
  read(cues: Cue[], options: { tidy: TidyOptions; language: string; duration: number }) {
    talk = readTalk({ cues, unreadable: [], format: 'vtt', isTimed: true }, options);
    if (talk.sentences.length === 0) {
      talk = null;
      return null;
    }
    const proposed = proposeChapters(talk, options.duration);
    return {
      sentences: talk.sentences.map(({ start, end, text }) => ({ start, end, text })),
      language: talk.language.code,
      isRestored: talk.isRestored,
      mended: talk.mended,
      guidance: guideLength(talk),
      proposed: proposed.chapters,
      curve: proposed.curve
    };
  },

  /** The article, the transcript in paragraphs, and proposals for title and excerpt. */
  draw(options: {
    title: string;
    length: ArticleLength;
    chapters: Chapter[];
    pictures: GivenPicture[];
  }) {
    if (!talk) return null;
    const article = drawArticle(talk, options);
    return {
      article,
      paragraphs: talkParagraphs(
        talk,
        options.chapters.map((c) => c.start)
      ),
      titles: proposeTitles(talk, options.title),
      excerpt: proposeExcerpt(article, EXCERPT_LIMIT)
    };
  },

  /** The captions as they were mended, sentences restored, in lines that can be read. */
  captions(): Cue[] {
    return talk ? cuesFromSentences(talk) : [];
  },

  /** What to look at in the text as it stands. */
  review(options: {
    title: string;
    html: string;
    phrases: string[];
    admired: string[];
    subject: string[];
  }) {
    const blocks = textBlocks(options.html);
    return {
      blocks: blocks.map(({ kind, text, start, end }) => ({ kind, text, start, end })),
      review: reviewText(blocks, options.subject),
      phrases: phraseStandings(options.phrases, options.title, blocks, options.admired)
    };
  }
};

export type TalkWorker = typeof api;
export type ReadTalk = NonNullable<ReturnType<TalkWorker['read']>>;
export type Drawn = NonNullable<ReturnType<TalkWorker['draw']>>;
export type Reviewed = ReturnType<TalkWorker['review']>;
expose(api);
