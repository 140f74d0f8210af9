import type { Cue } from './cue.ts';

export class CaptionError extends Error {
  constructor(
    message: string,
    readonly line: number
  ) {
    super(message);
  }
}

const TIMING =
  /^\s*((?:\d+:)?[0-5]?\d:[0-5]?\d[.,]\d{1,3})\s+-->\s+((?:\d+:)?[0-5]?\d:[0-5]?\d[.,]\d{1,3})(?:\s|$)/;
const ENTITIES: Record<string, string> = {
  amp: '&',
  lt: '<',
  gt: '>',
  nbsp: '\u00a0',
  lrm: '\u200e',
  rlm: '\u200f'
};

/**
 * Reads WebVTT (W3C Candidate Recommendation of 4 April 2019) into cues of plain text. Notes,
 * styles, regions and settings are passed over; a cue whose times cannot be read is left out.
 * @throws CaptionError when the file does not begin as WebVTT does
 */
export function parseWebVtt(source: string): Cue[] {
  const lines = source
    .replace(/^\uFEFF/, '')
    .replace(/\0/g, '\uFFFD')
    .split(/\r\n|\n|\r/);
  if (!/^WEBVTT(?:[ \t]|$)/.test(lines[0] ?? '')) {
    throw new CaptionError('The file does not begin with WEBVTT.', 1);
  }
  const cues: Cue[] = [];
  for (let i = 1; i < lines.length; i++) {
    const timing = TIMING.exec(lines[i] ?? '');
    if (!timing) continue;
    const text: string[] = [];
    while (lines[i + 1]?.trim() && !lines[i + 1]?.includes('-->')) text.push(lines[++i] ?? '');
    const start = seconds(timing[1] ?? '');
    const end = seconds(timing[2] ?? '');
    if (end > start) cues.push({ start, end, text: cueText(text.join('\n')) });
  }
  return cues;
}

function seconds(timestamp: string): number {
  const parts = timestamp.replace(',', '.').split(':').map(Number);
  return parts.reduce((sum, part) => sum * 60 + part, 0);
}

function cueText(markup: string): string {
  return markup
    .replace(/<[^>]*>/g, '')
    .replace(/&(\w+);/g, (whole, name: string) => ENTITIES[name] ?? whole)
    .trim();
}
