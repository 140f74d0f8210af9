import { showAsPublished, showBare, type ShownPost } from '$lib/core/article/review/asPublished.ts';
import { decodeText } from '$lib/core/feeds/decode.ts';
import { markupProblem } from '$lib/core/markup/guard.ts';
import type { Fetched } from './coreApi.ts';
import { addLinks } from '$lib/core/links/addLinks.ts';
import type { GlossaryEntry, LinkMemory } from '$lib/core/links/glossary.ts';
import { proposeLinks, type LinkProposal } from '$lib/core/links/propose.ts';
import { glossaryTargets, postTargets, type OwnPost } from '$lib/core/links/targets.ts';
import { htmlText } from '$lib/core/text/html.ts';
import { detectLanguage, languageOf } from '$lib/core/text/language.ts';
import type { SentenceChoice } from '$lib/core/article/edit/choices.ts';
import { extractArticle } from '$lib/core/article/extract/extract.ts';
import type { ArticleLength } from '$lib/core/article/extract/length.ts';
import type { GivenPicture } from '$lib/core/article/extract/givenPicture.ts';
import { guideLength } from '$lib/core/article/extract/guidance.ts';
import { phraseStandings } from '$lib/core/article/review/phrases.ts';
import { proposeExcerpt, proposeTitles } from '$lib/core/article/extract/proposals.ts';
import { notFromTalk } from '$lib/core/article/review/sourceCheck.ts';
import { reviewText } from '$lib/core/article/review/review.ts';
import { sentencesIn } from '$lib/core/text/sentencesIn.ts';
import { textBlocks } from '$lib/core/markup/textBlocks.ts';
import { EXCERPT_LIMIT } from '$lib/core/article/review/checks.ts';
import { CaptionError, type Cue } from '$lib/core/captions/cue.ts';
import { cuesFromSentences } from '$lib/core/captions/fromSentences.ts';
import { readCaptions } from '$lib/core/captions/read.ts';
import type { TidyOptions } from '$lib/core/captions/tidyOptions.ts';
import type { Chapter } from '$lib/core/chapters/chapter.ts';
import { proposeChapters } from '$lib/core/chapters/propose.ts';
import { talkParagraphs } from '$lib/core/text/paragraphs.ts';
import { readTalk, type Talk } from '$lib/core/text/talk.ts';

/** Captions with all that decides how they are read. */
export interface TalkSource {
  cues: Cue[];
  tidy: TidyOptions;
  language: string;
}

/** Talks that are kept read: one on the desk, and some that lanes work on. */
const MAX_KEPT = 3;

/**
 * What the worker does with talks. Every answer follows from the call alone; talks that were read
 * are kept under the whole text of what they were read from, so that it need not be read again.
 */
export function talkApi() {
  const kept = new Map<string, Talk>();

  function talkOf({ cues, tidy, language }: TalkSource): Talk | null {
    const key = JSON.stringify([language, tidy, cues]);
    const talk =
      kept.get(key) ??
      readTalk({ cues, unreadable: [], format: 'vtt', isTimed: true }, { tidy, language });
    kept.delete(key);
    kept.set(key, talk);
    for (const oldest of kept.keys()) {
      if (kept.size <= MAX_KEPT) break;
      kept.delete(oldest);
    }
    return talk.sentences.length > 0 ? talk : null;
  }

  return {
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

    /** Links that a text may have. */
    proposeLinks(of: {
      html: string;
      language: string;
      base: string;
      glossary: readonly GlossaryEntry[];
      memories: readonly LinkMemory[];
      posts: readonly OwnPost[];
    }): LinkProposal[] {
      const language = languageOf(of.language || detectLanguage(htmlText(of.html)));
      const targets = [
        ...glossaryTargets(of.glossary, of.memories, language),
        ...postTargets(of.posts, of.memories, language)
      ];
      return proposeLinks(of.html, targets, language, of.base);
    },

    addLinks,

    /**
     * From captions to sentences and proposals for chapters.
     * @param duration of the video, in seconds; 0 where it is not known
     * @returns null where nothing is said
     */
    read(source: TalkSource, duration: number) {
      const talk = talkOf(source);
      if (!talk) return null;
      const proposed = proposeChapters(talk, duration);
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

    /**
     * The article, the transcript in paragraphs, and proposals for title and excerpt.
     * @returns null where nothing is said
     */
    extract(
      source: TalkSource,
      options: {
        title: string;
        length: ArticleLength;
        chapters: Chapter[];
        pictures: GivenPicture[];
        choices?: SentenceChoice[];
      }
    ) {
      const talk = talkOf(source);
      if (!talk) return null;
      const article = extractArticle(talk, options);
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
    captions(source: TalkSource): Cue[] {
      const talk = talkOf(source);
      return talk ? cuesFromSentences(talk) : [];
    },

    /**
     * Sentences of a post that do not come from the talk of its video, those edited by hand aside.
     * @param base the text as it was made; blocks that stand otherwise in `html` were edited
     */
    findForeignText({ html, base, cues }: { html: string; base: string; cues: Cue[] }): string[] {
      const made = new Set(textBlocks(base).map((block) => block.text));
      const claimed = textBlocks(html).filter(
        ({ kind, start, text }) => kind !== 'heading' && start !== undefined && made.has(text)
      );
      return notFromTalk(
        claimed.flatMap((block) => sentencesIn(block.text).map((s) => s.text)),
        cues
      );
    },

    /** A page of the blog with a post in it; the bare post where the page gives no place for it. */
    showAsPublished({ bytes, contentType, url }: Fetched, post: ShownPost): string {
      const page = decodeText(bytes, contentType);
      // A page that would hold up the parser is not the blog's own work.
      return (markupProblem(page) ? null : showAsPublished(page, url, post)) ?? showBare(post);
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
}

export type TalkApi = ReturnType<typeof talkApi>;
export type ReadTalk = NonNullable<ReturnType<TalkApi['read']>>;
export type Extracted = NonNullable<ReturnType<TalkApi['extract']>>;
export type Reviewed = ReturnType<TalkApi['review']>;
