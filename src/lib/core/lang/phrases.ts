import type { Unspoken } from '../markup/postBlocks.ts';

/** The few words that a script adds of its own. */
export interface Phrases {
  readMore: string;
  aside: Record<Unspoken, string>;
  /** How a list is announced, and a numbered item; null where it goes without. */
  countOf: ((count: number, isOrdered: boolean) => string) | null;
  numbered: ((n: number) => string) | null;
}
