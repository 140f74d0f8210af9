/** Why a sentence of the talk is not in the article. */
export type LeftOutReason =
  | 'greeting'
  | 'call'
  | 'small-talk'
  | 'fragment'
  | 'pointing'
  | 'said-twice'
  | 'depends-on-previous'
  | 'repeats'
  | 'says-little'
  | 'over-length'
  | 'dropped-by-hand';

/** A word of the article and the word of the talk it comes from. */
export interface WrittenWord {
  text: string;
  /** Index into the words of the talk. */
  at: number;
}

export type Written = { words: WrittenWord[] } | { leftOut: LeftOutReason };
