import { textBlocks, type TextBlock } from '$lib/core/markup/textBlocks.ts';
import type { Cue } from '$lib/core/captions/cue.ts';
import type { Chapter } from '$lib/core/chapters/chapter.ts';
import { detectLanguage } from '$lib/core/text/language.ts';
import { readTalk } from '$lib/core/text/talk.ts';
import { wordsOf } from '$lib/core/text/terms.ts';
import type { UpdateDraft } from '$lib/core/updates/draft.ts';
import { hashtags, type Hashtag } from '$lib/core/updates/hashtags.ts';
import type { UpdateLimits } from '$lib/core/updates/placeLimits.ts';
import { proposePolls, type Poll } from '$lib/core/updates/poll.ts';
import { proposeQuiz, type NoQuizReason, type QuizQuestion } from '$lib/core/updates/quiz.ts';
import { tellingSentence } from '$lib/core/updates/shortText.ts';
import type { UpdateSource } from '$lib/core/updates/source.ts';
import { talkBlocks } from '$lib/core/updates/talkBlocks.ts';
import { keyTerms } from '$lib/core/updates/terms.ts';
import { versionFor, type Version, type VersionPlace } from '$lib/core/updates/version.ts';

/** Limits that polls and quizzes are proposed for where no place tells others. */
const USUAL = { question: 300, option: 65, most: 5 };
const MAX_TERMS = 30;
/** Hashtags that are proposed at most, unless the user has more of their own. */
const USUAL_TAGS = 4;

/** Hashtags of the user's own, and those that are never proposed. */
export interface TagLists {
  own: string[];
  banned: string[];
}

export interface Proposals {
  polls: Poll[];
  quiz: QuizQuestion[];
  noQuiz: NoQuizReason | null;
  /** The sentence that says most of the item, or empty. */
  telling: string;
  /** What the item is about, best first. */
  terms: string[];
}

export const updatesApi = {
  blocksOfHtml: (html: string): TextBlock[] => textBlocks(html),

  /** The text of a video, from what is said in it. */
  blocksOfTalk(cues: Cue[], title: string, language: string, chapters: Chapter[]): TextBlock[] {
    const captions = { cues, unreadable: [], format: 'vtt' as const, isTimed: true };
    const talk = readTalk(captions, { language: language || undefined });
    return talkBlocks(talk, title, chapters);
  },

  languageOf(texts: string[]): string {
    const found = detectLanguage(texts.join('\n'));
    return found === 'und' ? 'en' : found;
  },

  propose(source: UpdateSource): Proposals {
    const { questions, none } = proposeQuiz(source, { ...USUAL, most: 4 });
    const texts = [source.title, ...source.blocks.map((b) => b.text)];
    const named = wordsOf(source.title).join(' ');
    // What is said once, and not in the title, is hardly what an item is about.
    const terms = keyTerms(texts, source.language)
      .filter(({ term, count }) => count > 1 || named.includes(term))
      .map((t) => t.term);
    return {
      polls: proposePolls(source, USUAL),
      telling: tellingSentence(source),
      quiz: questions,
      noQuiz: none,
      terms: terms.slice(0, MAX_TERMS)
    };
  },

  /** Hashtags for a place, from key terms, the user's lists and how often each is used there. */
  hashtags: (
    terms: string[],
    limits: UpdateLimits,
    uses: Map<string, number>,
    lists: TagLists
  ): Hashtag[] =>
    hashtags(terms, {
      most: Math.min(Math.max(USUAL_TAGS, lists.own.length), limits.hashtags),
      style: limits.hashtagStyle,
      own: lists.own,
      banned: lists.banned,
      ...(uses.size > 0 && { uses })
    }),

  versions: (
    source: UpdateSource,
    draft: UpdateDraft,
    places: VersionPlace[],
    now: string
  ): Version[] => places.map((place) => versionFor(source, draft, place, now))
};

export type UpdatesApi = typeof updatesApi;
