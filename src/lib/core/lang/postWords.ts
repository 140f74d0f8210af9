/** What a layout says of its own accord, in one language. May hold fields and variants. */
export interface PostWords {
  headings: { takeaways: string; chapters: string; transcript: string };
  credit: string;
  closing: string;
  /** What stands where a video stood that is gone. */
  gone: string;
  /** What is said of a link that somebody pays for. */
  paid: string;
}
