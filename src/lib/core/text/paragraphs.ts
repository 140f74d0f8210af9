import type { Talk } from './talk.ts';

/** A run of speech with its seconds. */
export interface Paragraph {
  start: number;
  end: number;
  text: string;
  /** Sentences `from` up to, not including, `to`. */
  from: number;
  to: number;
}

/** Silence in seconds after which a paragraph may end, and that which always ends one. */
const PAUSE = { may: 0.9, must: 4 };
/** Words after which a paragraph ends at the next sentence, and from which on a pause may end it. */
const LENGTH = { most: 85, least: 20 };

/**
 * The sentences of a talk as paragraphs to be read.
 * @param breaks seconds at which a paragraph must begin: starts of chapters
 */
export function talkParagraphs(
  { sentences }: Pick<Talk, 'sentences'>,
  breaks: readonly number[] = []
): Paragraph[] {
  const paragraphs: Paragraph[] = [];
  // A chapter list has whole seconds, so its start may fall a little beside the sentence.
  const begun = new Set(breaks.map((at) => nearest(sentences, at)));
  let words = 0;
  for (const [i, { start, end, text, from, to }] of sentences.entries()) {
    const open = paragraphs.at(-1);
    const pause = start - (open?.end ?? start);
    const begins =
      !open ||
      begun.has(i) ||
      pause >= PAUSE.must ||
      words >= LENGTH.most ||
      (words >= LENGTH.least && pause >= PAUSE.may);
    if (begins) {
      paragraphs.push({ start, end, text, from: i, to: i + 1 });
      words = 0;
    } else {
      open.text += ` ${text}`;
      open.end = end;
      open.to = i + 1;
    }
    words += to - from;
  }
  return paragraphs;
}

function nearest(sentences: readonly { start: number }[], at: number): number {
  const after = sentences.findIndex((s) => s.start >= at);
  if (after <= 0) return after < 0 ? sentences.length - 1 : 0;
  const [before, next] = [sentences[after - 1]?.start ?? 0, sentences[after]?.start ?? 0];
  return at - before < next - at ? after - 1 : after;
}
