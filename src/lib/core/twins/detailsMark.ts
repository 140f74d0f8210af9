import type { Cue } from '../captions/cue.ts';
import type { Chapter } from '../chapters/chapter.ts';
import { hashOf } from '../model/hash.ts';

/** Hashes of the captions and the chapters of a video, in one word each. */
export function detailsMark({
  cues,
  chapters
}: {
  cues: readonly Cue[];
  chapters: readonly Chapter[];
}): string {
  const said = cues.map((cue) => cue.text).join('\n');
  const told = chapters.map(({ start, title }) => `${Math.round(start)} ${title}`).join('\n');
  return `${said.length}-${hashOf(said)} ${told.length}-${hashOf(told)}`;
}

export function readMark(mark: string): { captions: string; chapters: string } {
  const [captions = '', chapters = ''] = mark.split(' ');
  return { captions, chapters };
}
