import type { WordTimedCue } from '../captions/webvtt.ts';
import { breakLines } from './fit.ts';
import { READABLE } from './line.ts';
import type { TimedLine, TimeLine } from './timeLine.ts';

/** Characters in a line of a caption, and lines in one. */
const LINE = 42;
const LINES = 2;
const GAP = 0.04;
/** A caption stays on a little after its last word, where there is room. */
const LINGER = 0.4;

/**
 * Captions of what is said: at most two lines of 42 characters, at most 17 characters a second
 * counted with the pause that follows. Each begins with its sentence.
 */
export function captionsOf(timeLine: TimeLine): WordTimedCue[] {
  const lines = timeLine.scenes.flatMap((s) => s.lines);
  return lines.flatMap((line, i) => {
    const next = lines[i + 1]?.start ?? timeLine.duration;
    return cuesOfLine(line, next - GAP);
  });
}

function cuesOfLine(line: TimedLine, free: number): WordTimedCue[] {
  const rows = breakLines(line.text, LINE, (t) => [...t].length);
  const count = Math.ceil(rows.length / LINES);
  const even = Math.ceil(rows.length / count) || 1;
  const texts: string[] = [];
  for (let i = 0; i < rows.length; i += even) texts.push(rows.slice(i, i + even).join('\n'));
  const lengths = texts.map((t) => [...t].length);
  const total = lengths.reduce((a, b) => a + b, 0);
  // As long as reading takes, and a little longer than the sound; never into the next sentence.
  const end = Math.min(free, Math.max(line.end + LINGER, line.start + total / READABLE));
  let at = line.start;
  let word = 0;
  return texts.map((text, i) => {
    const share = (lengths[i] ?? 0) / total;
    const count = text.split(/\s+/).filter(Boolean).length;
    const cue = {
      start: at,
      end: i === texts.length - 1 ? end : at + (end - line.start) * share,
      text,
      words: line.words.slice(word, word + count)
    };
    at = cue.end;
    word += count;
    return cue;
  });
}
