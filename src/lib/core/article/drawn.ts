import type { LeftOutReason } from './spoken.ts';

/** A sentence of the article: word for word from the talk, less what only speech needs. */
export interface DrawnSentence {
  text: string;
  /** Seconds of the video in which it is said. */
  start: number;
  end: number;
  /** Index of the sentence of the talk. */
  from: number;
}

export type DrawnBlock =
  | { kind: 'heading'; text: string; start: number; end: number }
  | { kind: 'paragraph'; sentences: DrawnSentence[] }
  | { kind: 'list'; items: DrawnSentence[] }
  | { kind: 'picture'; url: string; alt: string; start: number };

export interface DrawnArticle {
  summary: DrawnSentence[];
  takeaways: DrawnSentence[];
  body: DrawnBlock[];
  quote: DrawnSentence | null;
  /** Every sentence of the talk that is not in the body, and why. */
  leftOut: { sentence: number; reason: LeftOutReason }[];
  /** Words in the body. */
  words: number;
  /** Words that the talk is about, most telling first. */
  subject: string[];
}
