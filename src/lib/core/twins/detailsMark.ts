import type { Cue } from '../captions/cue.ts';
import type { Chapter } from '../chapters/chapter.ts';
import { hashOf } from '../model/hash.ts';

/** What is compared of the captions and the chapters of a video, without either. */
export interface DetailsMark {
  /** Hashes. */
  captions: string;
  chapters: string;
  /** When its channel said that it was last changed, as they were read; ISO 8601, or empty. */
  asOf: string;
}

/** The mark of a video in one line, to be sorted and read back. */
export function detailsMark({
  cues,
  chapters,
  asOf = ''
}: {
  cues: readonly Cue[];
  chapters: readonly Chapter[];
  asOf?: string;
}): string {
  const said = cues.map((cue) => cue.text).join('\n');
  const told = chapters.map(({ start, title }) => `${Math.round(start)} ${title}`).join('\n');
  return `${said.length}-${hashOf(said)} ${told.length}-${hashOf(told)} ${asOf}`;
}

export function readMark(mark: string): DetailsMark {
  const [captions = '', chapters = '', asOf = ''] = mark.split(' ');
  return { captions, chapters, asOf };
}
