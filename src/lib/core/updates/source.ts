import { sentencesIn } from '../text/sentencesIn.ts';
import type { TextBlock } from '../markup/textBlocks.ts';
import { POINTING_HEADS as GERMAN_POINTING_HEADS } from '../lang/de/pronouns.ts';
import { EARLY_PRONOUNS, POINTING_HEADS } from '../lang/en/pronouns.ts';
import { ANAPHORA, CONNECTIVES } from '../lang/en/words.ts';
import { wordsOf } from '../text/terms.ts';
import { hashOf } from '../model/hash.ts';

/** What an update is made from: a post, or a video with its text. */
export interface UpdateSource {
  title: string;
  kind: 'post' | 'video';
  /** Address that the update leads to. */
  link: string;
  /** BCP 47. */
  language: string;
  blocks: readonly TextBlock[];
}

/** Where in the source something stands: a block and a character of its text. */
export interface Spot {
  block: number;
  from: number;
}

export interface SourceSentence extends Spot {
  text: string;
  kind: TextBlock['kind'];
  /** Of which part of the source, from 0 on: a heading begins the next. */
  section: number;
}

/** The sentences of the source in their order; headings and code are none. */
export function sourceSentences(blocks: readonly TextBlock[]): SourceSentence[] {
  const found: SourceSentence[] = [];
  const told = new Set<string>();
  let section = 0;
  for (const [block, { kind, text }] of blocks.entries()) {
    if (kind === 'heading') section++;
    if (kind === 'heading' || kind === 'code' || kind === 'picture') continue;
    for (const sentence of sentencesIn(text)) {
      const clean = plainSentence(sentence.text);
      // What is said again in the same words is one sentence.
      if (!clean || told.has(clean)) continue;
      told.add(clean);
      found.push({ text: clean, block, from: sentence.from, kind, section });
    }
  }
  return found;
}

const PAIRS: readonly [string, string][] = [
  ['(', ')'],
  ['[', ']'],
  ['“', '”'],
  ['„', '“'],
  ['«', '»']
];

/** A sentence as plain text: no notes in brackets, no bracket or quotation mark without its other half. */
export function plainSentence(text: string): string {
  let plain = text
    .replace(/\[(?:\d+|\^[^\]]*)\]/g, '')
    .replace(/\s+/gu, ' ')
    .trim();
  for (const [open, close] of PAIRS) {
    const count = (mark: string) => plain.split(mark).length - 1;
    if (open !== '„' && count(open) !== count(close) && !plain.includes('„'))
      plain = plain.replaceAll(open, '').replaceAll(close, '');
  }
  if ((plain.match(/"/g)?.length ?? 0) % 2 === 1) plain = plain.replaceAll('"', '');
  return plain.replace(/(?<!\s)\s+([.,;:!?])/gu, '$1').trim();
}

/** Whether a sentence can be understood without the one before it. */
export function standsAlone(text: string, language: string): boolean {
  const words = wordsOf(text);
  const first = words[0] ?? '';
  if (language.toLowerCase().startsWith('en'))
    return (
      !ANAPHORA.has(first.split("'")[0] ?? '') &&
      !CONNECTIVES.has(first) &&
      !POINTING_HEADS.test(text) &&
      !EARLY_PRONOUNS.test(words.slice(0, 3).join(' '))
    );
  return !GERMAN_POINTING_HEADS.test(text);
}

/** One of several wordings, the same for the same seed. */
export const pick = <T>(wordings: readonly T[], seed: string): T =>
  wordings[hashOf(seed) % wordings.length]!;
