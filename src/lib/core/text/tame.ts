/** Characters of what comes from outside; what is longer is cut. */
export const LONGEST = {
  title: 1_000,
  /** A description or a caption file. */
  text: 200_000,
  captions: 20_000_000,
  address: 2_048
};

/** Letters of a word, and signs in a row, that are kept. */
const RUN = 200;
const LONG_WORD = new RegExp(`([\\p{L}\\p{N}]{${RUN}})[\\p{L}\\p{N}]+`, 'gu');
const LONG_SIGNS = new RegExp(`([^\\p{L}\\p{N}]{${RUN}})[^\\p{L}\\p{N}]+`, 'gu');

/** A quick look, which takes letters beyond ASCII for signs: nearly all text passes it. */
const MAY_RUN_ON = new RegExp(`[^A-Za-z0-9]{${RUN}}|\\S{${RUN}}`);

/**
 * Text from outside as long as people write it, with words and rows of signs cut to 200: what looks for
 * patterns in it never meets one that goes on and on.
 * @param most characters
 */
export function tame(text: string, most: number): string {
  const kept = text.length > most ? text.slice(0, most) : text;
  if (kept.length <= RUN || !MAY_RUN_ON.test(kept)) return kept;
  return kept.replace(LONG_WORD, '$1').replace(LONG_SIGNS, '$1');
}
