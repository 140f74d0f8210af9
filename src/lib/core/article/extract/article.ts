import type { LeftOutReason } from './written.ts';

/** A sentence of the article: word for word from the talk, less what only speech needs. */
export interface ArticleSentence {
  text: string;
  /** Seconds of the video in which it is said. */
  start: number;
  end: number;
  /** Index of the sentence of the talk. */
  from: number;
}

export interface ComparisonRow extends Omit<ArticleSentence, 'text'> {
  name: string;
  value: string;
}

export type ArticleBlock =
  | { kind: 'heading'; text: string; start: number; end: number }
  | { kind: 'paragraph'; sentences: ArticleSentence[] }
  | { kind: 'list'; items: ArticleSentence[] }
  /** Figures told of several things, one in each row. */
  | { kind: 'table'; rows: ComparisonRow[] }
  | { kind: 'picture'; url: string; alt: string; start: number };

export interface Article {
  /** What the talk sets out to do, in its own words near the beginning. */
  aim: ArticleSentence | null;
  summary: ArticleSentence[];
  takeaways: ArticleSentence[];
  body: ArticleBlock[];
  quote: ArticleSentence | null;
  /** Every sentence of the talk that is not in the body, and why. */
  leftOut: { sentence: number; reason: LeftOutReason }[];
  /** Words in the body. */
  words: number;
  /** Words that the talk is about, most telling first. */
  subject: string[];
}
