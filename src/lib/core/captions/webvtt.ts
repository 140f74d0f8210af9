import { CaptionError, type Cue } from './cue.ts';
import { readTimestamp, writeTimestamp } from './timestamp.ts';

const ARROW = /^\s*([\d:.,]+)\s+-->\s+([\d:.,]+)(?:\s|$)/;
const ENTITIES: Record<string, string> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  nbsp: '\u00a0',
  lrm: '\u200e',
  rlm: '\u200f'
};

/** Cues as they stand in a file, and the lines (from 1) whose times could not be read. */
export interface RawCaptions {
  cues: Cue[];
  unreadable: number[];
}

/**
 * Reads WebVTT (W3C Candidate Recommendation of 4 April 2019) into cues of plain text: voices and
 * stamps inside a cue are kept, notes, styles, regions and settings passed over. Cues stand as the
 * file has them, also those without length or order.
 * @throws CaptionError when the file does not begin as WebVTT does
 */
export function parseWebVtt(source: string): RawCaptions {
  const lines = linesOf(source);
  if (!/^WEBVTT(?:[ \t]|$)/.test(lines[0] ?? '')) {
    throw new CaptionError('The file does not begin with WEBVTT.', 1);
  }
  const captions: RawCaptions = { cues: [], unreadable: [] };
  for (let i = 1; i < lines.length; i++) {
    const line = lines[i] ?? '';
    if (/^(NOTE|STYLE|REGION)(?:\s|$)/.test(line) && isBlank(lines[i - 1])) {
      while (i + 1 < lines.length && !isBlank(lines[i + 1])) i++;
      continue;
    }
    if (!line.includes('-->')) continue;
    const timing = ARROW.exec(line);
    const start = readTimestamp(timing?.[1] ?? '');
    const end = readTimestamp(timing?.[2] ?? '');
    const at = i + 1;
    const text: string[] = [];
    while (isMoreText(lines, i + 1)) text.push(lines[++i] ?? '');
    if (start === null || end === null) captions.unreadable.push(at);
    else captions.cues.push({ start, end, ...readCueText(text.join('\n')) });
  }
  return captions;
}

export const linesOf = (source: string): string[] =>
  source
    .replace(/^\uFEFF/, '')
    .replace(/\0/g, '\uFFFD')
    .split(/\r\n|\n|\r/);

/**
 * Only an empty line ends a cue: automatic captions put a space into lines without words. But where
 * times follow, the space was meant to be nothing.
 */
function isMoreText(lines: readonly string[], i: number): boolean {
  const line = lines[i];
  if (!line || line.includes('-->')) return false;
  const isSpace = isBlank(line);
  const isEnd = lines[i + 1]?.includes('-->') || lines[i + 2]?.includes('-->');
  return !isSpace || !isEnd;
}

const isBlank = (line: string | undefined): boolean => !line?.trim();

/** Plain text of a cue, with its voice and its stamps. Tags that are not closed do no harm. */
export function readCueText(markup: string): Pick<Cue, 'text' | 'speaker' | 'stamps'> {
  let text = '';
  let speaker = '';
  const stamps: NonNullable<Cue['stamps']> = [];
  for (const [, tag, words] of markup.trim().matchAll(/<([^>]*)>?|([^<]+)/g)) {
    if (words !== undefined) text += decodeEntities(words);
    else if (tag !== undefined) {
      const at = readTimestamp(tag);
      const voice = /^v(?:\.\S*)?\s+(\S.*)$/.exec(tag)?.[1];
      if (at !== null) stamps.push({ at, offset: text.length });
      else if (voice && !speaker) speaker = decodeEntities(voice.trim());
      else if (/^rt\b/.test(tag)) text += ' (';
      else if (tag === '/rt') text += ')';
    }
  }
  return {
    text,
    ...(speaker ? { speaker } : {}),
    ...(stamps.length > 0 ? { stamps } : {})
  };
}

export const decodeEntities = (text: string): string =>
  text
    .replace(/&(\w+);/g, (whole, name: string) => ENTITIES[name] ?? whole)
    .replace(/&#(?:x([\da-f]{1,6})|(\d{1,7}));/gi, (whole, hex?: string, decimal?: string) => {
      const code = hex ? parseInt(hex, 16) : Number(decimal);
      return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : whole;
    });

const escapeCue = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** Cues as WebVTT. Blank lines inside a cue would end it, so they are taken out. */
export const writeWebVtt = (cues: readonly Cue[]): string =>
  written(cues, ({ text }) => escapeCue(text));

/** A cue with the second at which each of its words begins. */
export interface WordTimedCue extends Cue {
  words: readonly number[];
}

/** The same with a time before each word but the first, at which players light it up (W3C WebVTT, cue timestamps). */
export const writeWordTimedWebVtt = (cues: readonly WordTimedCue[]): string =>
  written(cues, ({ text, start, end, words }) => {
    let [at, last] = [0, start];
    return text.replace(/\S+/g, (word) => {
      const time = words[at++];
      // Times within a cue rise, and lie within it.
      const isShown = at > 1 && time !== undefined && time > last + 0.001 && time < end;
      if (isShown) last = time;
      return `${isShown ? `<${writeTimestamp(time)}>` : ''}${escapeCue(word)}`;
    });
  });

function written<C extends Cue>(cues: readonly C[], body: (cue: C) => string): string {
  const blocks = cues.map((cue) => {
    const text = body({ ...cue, text: cue.text.replace(/(?<!\s)\s*\n\s*/g, '\n').trim() });
    const voice = cue.speaker ? `<v ${escapeCue(cue.speaker.replace(/\s+/g, ' '))}>` : '';
    return `${writeTimestamp(cue.start)} --> ${writeTimestamp(cue.end)}\n${voice}${text}\n`;
  });
  return ['WEBVTT\n', ...blocks].join('\n');
}
