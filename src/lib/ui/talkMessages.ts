import type { LengthName } from '$lib/core/article/extract/length.ts';
import type { LengthReason } from '$lib/core/article/extract/guidance.ts';
import type { PhrasePlace } from '$lib/core/article/review/phrases.ts';
import type { ReviewFinding } from '$lib/core/article/review/review.ts';
import type { LeftOutReason } from '$lib/core/article/extract/written.ts';
import type { Mending } from '$lib/core/captions/tidy.ts';
import type { TidyOptions } from '$lib/core/captions/tidyOptions.ts';
import { timeCode, type Chapter } from '$lib/core/chapters/chapter.ts';
import type { ChapterFault } from '$lib/core/chapters/edit.ts';
import { plural } from './messages.ts';

export const leftOutLabels: Record<LeftOutReason, string> = {
  greeting: 'a greeting or goodbye',
  call: 'a call to subscribe, comment and the like',
  'small-talk': 'said in passing',
  fragment: 'not a whole sentence',
  pointing: 'points at what only viewers see',
  'said-twice': 'said before',
  'depends-on-previous': 'needs a sentence that was left out',
  repeats: 'repeats an overused word',
  'says-little': 'it would say little to a reader',
  'dropped-by-hand': 'you dropped it',
  'over-length': 'other sentences say more at this length'
};

export const lengthLabels: Record<LengthName, string> = {
  short: 'Short',
  medium: 'Medium',
  long: 'Long'
};

export const lengthReasonLabels: Record<LengthReason, string> = {
  'little-said': 'so little is said that nothing should be given away',
  usual: 'it tells the main things and reads in a few minutes',
  'much-said': 'the talk is long, and few would read all of it',
  'mostly-speech': 'much of the talk is small change of speech'
};

export const tidyLabels: Record<keyof TidyOptions, string> = {
  soundNotes: 'Notes of sounds: [music]',
  speakers: 'Marks of who speaks',
  fillers: 'Fillers: um, uh, er',
  stutters: 'Words said twice in a row'
};

const MENDED: Record<Mending['kind'], [one: string, many: string]> = {
  'unreadable-time': [
    'cue with a time that cannot be read, left out',
    'cues with times that cannot be read, left out'
  ],
  unordered: ['cue out of order, put in its place', 'cues out of order, put in their places'],
  'zero-length': ['cue without length, given one', 'cues without length, given some'],
  overlap: ['cue that overlapped the next, cut', 'cues that overlapped the next, cut'],
  rolling: ['line shown again, said once', 'lines shown again, said once'],
  'sound-note': ['note of a sound', 'notes of sounds'],
  speaker: ['mark of a speaker', 'marks of speakers'],
  filler: ['filler', 'fillers'],
  stutter: ['word said twice in a row', 'words said twice in a row']
};
export const mendingMessage = ({ kind, count, first }: Mending): string =>
  `${plural(count, ...MENDED[kind])} (${kind === 'unreadable-time' ? `line ${first}` : `first at ${timeCode(first)}`})`;

export function chapterFaultMessage(fault: ChapterFault, chapters: readonly Chapter[]): string {
  const name = 'index' in fault ? `“${chapters[fault.index]?.title ?? ''}”` : '';
  switch (fault.kind) {
    case 'not-from-start':
      return 'The first chapter must begin at 0:00, or players take none of them.';
    case 'too-few':
      return 'Players take a list from three chapters on.';
    case 'too-short':
      return `${name} is shorter than ten seconds; players leave such chapters out.`;
    case 'untitled':
      return `The chapter at ${timeCode(chapters[fault.index]?.start ?? 0)} has no title.`;
    case 'same-title':
      return `Two chapters are called ${name}.`;
  }
}

export function reviewMessage(finding: ReviewFinding): string {
  switch (finding.kind) {
    case 'word-often':
      return `“${finding.word}” ${finding.count} times, ${finding.times} times its usual rate`;
    case 'phrase-often':
      return `“${finding.phrase}” ${finding.count} times`;
    case 'sentences-open-alike':
      return `${finding.count} sentences begin “${finding.opening}”`;
    case 'paragraphs-open-alike':
      return `${finding.count} paragraphs begin “${finding.opening}”`;
    case 'sentence-long':
      return `A sentence of ${finding.words} words`;
    case 'wordy':
      return finding.instead
        ? `“${finding.phrase}”: rather “${finding.instead}”`
        : `“${finding.phrase}” can go`;
    case 'hard-to-read':
      return `It reads at school grade ${finding.grade}: shorten sentences`;
  }
}

/** What Flesch's reading ease comes to in words. */
export const easeMessage = (ease: number): string =>
  ease >= 80
    ? 'very easy'
    : ease >= 65
      ? 'easy'
      : ease >= 50
        ? 'fairly easy'
        : ease >= 30
          ? 'hard'
          : 'very hard';

export const phrasePlaceLabels: Record<PhrasePlace, string> = {
  title: 'title',
  opening: 'first 100 words',
  headings: 'headings',
  pictures: 'picture text',
  body: 'body'
};

const names = new Intl.DisplayNames(['en'], { type: 'language' });
export const languageName = (code: string): string =>
  code === 'und' ? 'Language not known' : (names.of(code) ?? code);

export const formatMinutes = (minutes: number): string =>
  minutes < 1 ? 'under a minute' : plural(Math.round(minutes), 'minute', 'minutes');
