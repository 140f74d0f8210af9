/** What has to be known of a language to say a sentence in a few of its words. */
export interface GistWords {
  /** Words at the head of a sentence that lead into it and say nothing themselves. */
  leads: RegExp;
  /** Words that begin a clause. */
  clauseStarts: ReadonlySet<string>;
  /** Words that a phrase on a screen neither begins nor ends with. */
  heads: ReadonlySet<string>;
  tails: ReadonlySet<string>;
  /** Who does it, where it goes without saying: left out before a verb. */
  doers: ReadonlySet<string>;
  denials: ReadonlySet<string>;
  /** Words that numbers are said with. */
  numbers: RegExp;
  /** Numbers that are as often a manner of speaking; they count only before a measure. */
  smallNumbers: ReadonlySet<string>;
  measures: RegExp;
  /** "A warp is a set of threads": the term and what it means, as two groups. */
  terms: readonly RegExp[];
  before: RegExp;
  after: RegExp;
}
