import { LONGEST, tame } from '../text/tame.ts';
import { CaptionError } from './cue.ts';
import { parsePlainText } from './plain.ts';
import { parseSrt } from './srt.ts';
import { parseWebVtt, type RawCaptions } from './webvtt.ts';

export type CaptionFormat = 'vtt' | 'srt' | 'txt';

export interface ReadCaptions extends RawCaptions {
  format: CaptionFormat;
  /** False when the file has no times and an average pace was taken. */
  isTimed: boolean;
}

/** What a caption file is, by its first lines. */
export function formatOf(source: string): CaptionFormat {
  if (/^\uFEFF?WEBVTT(?:\s|$)/.test(source)) return 'vtt';
  return /^[ \t]*(?:\d{1,4}\s{0,3}:\s{0,3})?\d{1,2}\s{0,3}:\s{0,3}\d{1,2}(?:\s{0,3}[.,:]\s{0,3}\d{1,3})?\s{0,3}-{1,3}>/m.test(
    source
  )
    ? 'srt'
    : 'txt';
}

/** Signs that stand in files of programs, and in no text. */
const CONTROL = /[\u0000-\u0008\u000e-\u001a\u001c-\u001f]/g;

function isNoText(source: string): boolean {
  const start = source.slice(0, 4_096);
  return start.includes('\u0000') || (start.match(CONTROL)?.length ?? 0) * 200 > start.length;
}

/** Cues of a file: some thirty hours of talk. */
const MOST_CUES = 50_000;

function hasMoreThan(text: string, wanted: string, most: number): boolean {
  let count = 0;
  for (let at = text.indexOf(wanted); at >= 0; at = text.indexOf(wanted, at + wanted.length))
    if (++count > most) return true;
  return false;
}

/**
 * Reads captions of any of the kinds in use.
 * @throws CaptionError when the file is not of the given format or has no words in it
 */
export function readCaptions(source: string, format = formatOf(source)): ReadCaptions {
  if (isNoText(source))
    throw new CaptionError('This is no text: it may be a picture, a video or another file.', 1);
  if (hasMoreThan(source, '-->', MOST_CUES))
    throw new CaptionError(`It has more than ${MOST_CUES.toLocaleString('en')} captions.`, 1);
  const text = tame(source, LONGEST.captions);
  const read =
    format === 'txt'
      ? { ...parsePlainText(text), unreadable: [] }
      : { ...(format === 'vtt' ? parseWebVtt(text) : parseSrt(text)), isTimed: true };
  if (!read.cues.some((cue) => /[\p{L}\p{N}]/u.test(cue.text))) {
    throw new CaptionError('There is no text in the captions.', 1);
  }
  return { format, ...read };
}
