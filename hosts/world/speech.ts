import { readFileSync } from 'node:fs';
import { ROOT } from '../root.ts';

export interface Cue {
  start: number;
  end: number;
  text: string;
}
export interface Chapter {
  start: number;
  end: number;
  title: string;
}
export interface Speech {
  cues: Cue[];
  chapters: Chapter[];
  /** What is said when, sentence by sentence, whatever the captions make of it. */
  sentences: Cue[];
  /** Seconds. */
  duration: number;
}

const SECONDS_A_WORD = 0.38;
const PAUSE = { sentence: 0.45, paragraph: 1.1, chapter: 1.6 };
const LINE = { edited: 42, rough: 36 };

/**
 * Times a written talk as it would be spoken: `# title` opens a chapter, a blank line a
 * paragraph, `[[12]]` is twelve seconds of quiet.
 */
export function speak(id: string, manner: 'edited' | 'rough'): Speech {
  const text = readFileSync(new URL(`hosts/world/speech/${id}.txt`, ROOT), 'utf8');
  return speakText(text, manner);
}

/** The same of a text that is given. */
export function speakText(text: string, manner: 'edited' | 'rough'): Speech {
  const cues: Cue[] = [];
  const chapters: Chapter[] = [];
  const said: Cue[] = [];
  let at = 0.6;
  for (const paragraph of text.replace(/^#.*\n/gm, '\n$&\n').split(/\n{2,}/)) {
    const line = paragraph.trim();
    if (!line) continue;
    if (line.startsWith('# ')) {
      const start = chapters.length === 0 ? 0 : at + PAUSE.chapter / 2;
      const before = chapters.at(-1);
      if (before) before.end = start;
      at += chapters.length === 0 ? 0 : PAUSE.chapter;
      chapters.push({ start, end: start, title: line.slice(2) });
      continue;
    }
    for (const piece of line.split(/(\[\[\d+\]\])/)) {
      const quiet = /^\[\[(\d+)\]\]$/.exec(piece);
      if (quiet) at += Number(quiet[1]);
      else {
        said.push(...sentencesOf(piece.trim(), at, manner));
        at = sayPiece(piece.trim(), at, manner, cues);
      }
    }
    at += PAUSE.paragraph;
  }
  const duration = Math.round((at + 1.5) * 10) / 10;
  const last = chapters.at(-1);
  if (last) last.end = duration;
  return { cues: manner === 'rough' ? rolling(cues) : cues, chapters, sentences: said, duration };
}

/** A speaker whose captions are rough makes no pauses either. */
function sentencesOf(text: string, from: number, manner: 'edited' | 'rough'): Cue[] {
  let at = from;
  return text
    .split(/(?<=[.?!])\s+/)
    .filter(Boolean)
    .map((sentence) => {
      const start = at;
      const end = start + sentence.split(/\s+/).length * SECONDS_A_WORD;
      at = end + (manner === 'edited' ? PAUSE.sentence : 0);
      return { start, end, text: sentence };
    });
}

function sayPiece(text: string, from: number, manner: 'edited' | 'rough', cues: Cue[]): number {
  let at = from;
  const sentences = manner === 'rough' ? [text] : text.split(/(?<=[.?!])\s+/);
  for (const sentence of sentences) {
    const words = sentence.split(/\s+/).filter(Boolean);
    const room = manner === 'rough' ? LINE.rough : LINE.edited * 2;
    for (let first = 0; first < words.length;) {
      let last = first + 1;
      while (last < words.length && words.slice(first, last + 1).join(' ').length <= room) last++;
      const spoken = words.slice(first, last);
      const end = at + spoken.length * SECONDS_A_WORD;
      cues.push({ start: at, end, text: manner === 'rough' ? spoken.join(' ') : wrap(spoken) });
      at = end;
      first = last;
    }
    at += PAUSE.sentence;
  }
  return at;
}

/** At most two lines of 42 characters. */
function wrap(words: string[]): string {
  const text = words.join(' ');
  if (text.length <= LINE.edited) return text;
  let cut = words.length;
  while (cut > 1 && words.slice(0, cut).join(' ').length > LINE.edited) cut--;
  return `${words.slice(0, cut).join(' ')}\n${words.slice(cut).join(' ')}`;
}

/** As automatic captions roll: each cue shows the line before once more. */
function rolling(cues: Cue[]): Cue[] {
  return cues.map((cue, i) => {
    const before = cues[i - 1];
    return before ? { ...cue, text: `${before.text}\n${cue.text}` } : cue;
  });
}

export function timestamp(seconds: number): string {
  const ms = Math.round(seconds * 1000);
  const part = (value: number, size = 2) => String(Math.floor(value)).padStart(size, '0');
  return `${part(ms / 3600000)}:${part((ms / 60000) % 60)}:${part((ms / 1000) % 60)}.${part(ms % 1000, 3)}`;
}

export function toWebVtt(
  rows: { start: number; end: number; text: string }[],
  note: string
): string {
  const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
  return [
    'WEBVTT',
    `NOTE ${note}`,
    ...rows.map((r) => `${timestamp(r.start)} --> ${timestamp(r.end)}\n${escaped(r.text)}`)
  ].join('\n\n');
}
