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
  return /^\s*(?:\d+\s*:\s*)?\d{1,2}\s*:\s*\d{1,2}(?:\s*[.,:]\s*\d{1,3})?\s*-{1,3}>/m.test(source)
    ? 'srt'
    : 'txt';
}

/**
 * Reads captions of any of the kinds in use.
 * @throws CaptionError when the file is not of the given format or has no words in it
 */
export function readCaptions(source: string, format = formatOf(source)): ReadCaptions {
  const read =
    format === 'txt'
      ? { ...parsePlainText(source), unreadable: [] }
      : { ...(format === 'vtt' ? parseWebVtt(source) : parseSrt(source)), isTimed: true };
  if (!read.cues.some((cue) => /[\p{L}\p{N}]/u.test(cue.text))) {
    throw new CaptionError('There is no text in the captions.', 1);
  }
  return { format, ...read };
}
