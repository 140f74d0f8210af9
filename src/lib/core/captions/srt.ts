import { CaptionError, type Cue } from './cue.ts';
import { writeTimestamp, readTimestamp } from './timestamp.ts';
import { linesOf, readCueText, type RawCaptions } from './webvtt.ts';

const TIME = String.raw`(?:\d+\s*:\s*)?\d{1,2}\s*:\s*\d{1,2}(?:\s*[.,:]\s*\d{1,3})?`;
const ARROW = new RegExp(String.raw`^\s*(${TIME})\s*-{1,3}>\s*(${TIME})(?:\s|$)`);

/**
 * Reads SRT with its usual faults: missing or wrong numbers, dots for commas, spaces inside times,
 * a short arrow, no blank line between cues, blank lines inside one, tags and `{\an8}` marks.
 * @throws CaptionError when there is no cue in the file
 */
export function parseSrt(source: string): RawCaptions {
  const lines = linesOf(source);
  const captions: RawCaptions = { cues: [], unreadable: [] };
  let text: string[] | null = null;
  let times: { start: number; end: number } | null = null;
  const close = () => {
    if (times && text) {
      const markup = text.join('\n').replace(/\{\\[^}]*\}/g, '');
      captions.cues.push({ ...times, ...readCueText(markup) });
    }
  };
  for (const [i, line] of lines.entries()) {
    if (/--?>/.test(line)) {
      // The number above the times belongs to this cue, not to the text of the one before.
      if (text && /^\s*\d+\s*$/.test(text.at(-1) ?? '')) text.pop();
      close();
      const match = ARROW.exec(line);
      const start = readTimestamp((match?.[1] ?? '').replace(/\s/g, ''));
      const end = readTimestamp((match?.[2] ?? '').replace(/\s/g, ''));
      times = start === null || end === null ? null : { start, end };
      text = [];
      if (!times) captions.unreadable.push(i + 1);
    } else if (text && line.trim()) text.push(line.trim());
    else if (text && text.length > 0 && isNextCue(lines, i + 1)) {
      close();
      text = null;
      times = null;
    }
  }
  close();
  if (captions.cues.length === 0) {
    throw new CaptionError('No line with two times and an arrow was found.', 1);
  }
  return captions;
}

/** Whether what follows a blank line is a number and times, and not more of the same cue. */
function isNextCue(lines: readonly string[], from: number): boolean {
  const ahead = lines.slice(from, from + 6).filter((line, i) => line.trim() || i > 3);
  return (
    /--?>/.test(ahead[0] ?? '') ||
    (/^\s*\d+\s*$/.test(ahead[0] ?? '') && /--?>/.test(ahead[1] ?? ''))
  );
}

/** Cues as SRT, numbered from 1. */
export const writeSrt = (cues: readonly Cue[]): string =>
  cues
    .map(({ start, end, text }, i) => {
      const times = `${writeTimestamp(start, ',')} --> ${writeTimestamp(end, ',')}`;
      return `${i + 1}\n${times}\n${text.replace(/(?<!\s)\s*\n\s*/g, '\n').trim()}\n`;
    })
    .join('\n');
