import type { Cue } from './cue.ts';
import { readTimestamp } from './timestamp.ts';
import { linesOf } from './webvtt.ts';

/** Seconds that a spoken word takes on average, where nothing better is known: 150 words a minute. */
export const SECONDS_A_WORD = 0.4;

const TIMED =
  /^\W{0,3}((?:\d{1,2}:)?\d{1,2}:\d{2}(?:[.,]\d{1,3})?)(?:\s*[-–—]{1,3}\s*(?:\d{1,2}:)?\d{1,2}:\d{2}(?:[.,]\d{1,3})?)?\W{0,3}(?:\s(.*))?$/;

/**
 * Reads a transcript as plain text. Lines that begin with a time, or stand below one, are said
 * from then to the next time; a text without times is timed at an average pace.
 * @returns whether the times were in the text
 */
export function parsePlainText(source: string): { cues: Cue[]; isTimed: boolean } {
  const lines = linesOf(source).map((line) => line.trim());
  const marks = lines.flatMap((line, i) => {
    const match = TIMED.exec(line);
    const at = match && readTimestamp(match[1] ?? '');
    return at === null ? [] : [{ i, at, rest: (match?.[2] ?? '').trimStart() }];
  });
  const isTimed = marks.length > 0 && marks.length * 12 >= lines.filter(Boolean).length;
  return { cues: isTimed ? timed(lines, marks) : untimed(lines), isTimed };
}

function timed(lines: string[], marks: { i: number; at: number; rest: string }[]): Cue[] {
  return marks.flatMap(({ i, at, rest }, n) => {
    const next = marks[n + 1];
    const text = [rest, ...lines.slice(i + 1, next?.i)].filter(Boolean).join('\n');
    const length = wordsIn(text) * SECONDS_A_WORD;
    if (!text) return [];
    // A long stretch to the next time is silence, not slow speech.
    const end = next ? Math.min(next.at, at + Math.max(1, 2 * length)) : at + length;
    return [{ start: at, end, text }];
  });
}

function untimed(lines: string[]): Cue[] {
  let at = 0;
  return lines.filter(Boolean).map((text) => {
    const start = at;
    at += Math.max(1, wordsIn(text)) * SECONDS_A_WORD;
    return { start, end: at, text };
  });
}

/**
 * Stretches cues over the length of a video: of a text without times nobody knows better.
 * @param seconds of the video; 0 where it is not known
 */
export function fitToLength(cues: readonly Cue[], seconds: number): Cue[] {
  const end = cues.at(-1)?.end ?? 0;
  if (seconds <= 0 || end <= 0) return [...cues];
  const by = seconds / end;
  return cues.map((cue) => ({ ...cue, start: cue.start * by, end: cue.end * by }));
}

/** Words, or what is about as long to say in scripts without spaces. */
const wordsIn = (text: string): number =>
  text.split(/\s+/).filter(Boolean).length +
  (text.match(/[\u3040-\u30ff\u3400-\u9fff]/g)?.length ?? 0) / 2.5;
