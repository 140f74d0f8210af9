import type { Cue } from './cue.ts';

/** A run of speech with its seconds. */
export interface Paragraph {
  start: number;
  end: number;
  text: string;
}

/** Silence, in seconds, after which a new paragraph may begin, and that which always begins one. */
const PAUSE = { may: 0.9, must: 4 };
/** Characters after which a paragraph ends at the next sentence end, and at the next word. */
const LENGTH = { wanted: 420, most: 900 };

/**
 * Joins cues into paragraphs to be read. Lines that automatic captions repeat from cue to cue are
 * said once; a paragraph ends at a long pause, at a given time (the start of a chapter, say), or
 * at a sentence end when it has grown long enough.
 * @param breaks seconds at which a paragraph must begin
 */
export function toParagraphs(cues: readonly Cue[], breaks: readonly number[] = []): Paragraph[] {
  const paragraphs: Paragraph[] = [];
  let open: Paragraph | null = null;
  for (const piece of withoutRolling(cues)) {
    if (open && endsBefore(open, piece, breaks)) {
      paragraphs.push(open);
      open = null;
    }
    if (open) {
      open.text += ` ${piece.text}`;
      open.end = piece.end;
    } else open = { ...piece };
  }
  if (open) paragraphs.push(open);
  return paragraphs;
}

function endsBefore(open: Paragraph, next: Cue, breaks: readonly number[]): boolean {
  const pause = next.start - open.end;
  // A chapter list has whole seconds, so its start may fall a little before or after the cue.
  if (breaks.some((at) => at > open.start + 1 && at > open.end - 1 && at <= next.start + 1))
    return true;
  if (pause >= PAUSE.must) return true;
  const isSentence = /[.!?…]["”’)]*$/.test(open.text);
  if (isSentence && pause >= PAUSE.may) return true;
  return open.text.length > (isSentence ? LENGTH.wanted : LENGTH.most);
}

/** Cues in order, each with only the lines that the cue before did not show already. */
export function withoutRolling(cues: readonly Cue[]): Cue[] {
  const result: Cue[] = [];
  let shown: string[] = [];
  for (const cue of [...cues].sort((a, b) => a.start - b.start)) {
    const lines = cue.text
      .split('\n')
      .map((line) => line.replace(/\s+/g, ' ').trim())
      .filter(Boolean);
    const fresh = lines.filter((line, i) => !(i < lines.length - 1 && shown.includes(line)));
    const last = lines.at(-1);
    const isRepeat =
      fresh.length === 1 && last !== undefined && shown.includes(last) && lines.length === 1;
    if (fresh.length > 0 && !(isRepeat && cue.start - (result.at(-1)?.end ?? -1) < 0.1)) {
      result.push({ start: cue.start, end: cue.end, text: fresh.join(' ') });
    }
    if (lines.length > 0) shown = lines;
  }
  return result;
}
