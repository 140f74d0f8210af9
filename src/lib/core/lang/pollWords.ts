/** What polls are asked with in a language. */
export interface PollWords {
  /** Asked of things that can be tried, and of the parts of an item. */
  tryFirst: string;
  hearMore: string;
  /** Asked of two things between which the item lets one choose. */
  which(a: string, b: string): string;
  /** Answers to a question that can be answered yes or no. */
  answers: readonly string[];
  /** Two things between which one chooses, as its first two groups. */
  choice: RegExp;
  /** Little words before a thing, which go without it. */
  before: RegExp;
  /** Openings of a question that is answered yes or no, asked of the reader. */
  yesNo: RegExp;
}
