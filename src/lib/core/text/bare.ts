/** A word without its punctuation, in lower case, with straight apostrophes. */
export const bare = (word: string): string =>
  // Most words are bare already, and the look that tells is cheap.
  /^[a-z]+$/.test(word)
    ? word
    : word
        .toLowerCase()
        .replaceAll('’', "'")
        .replace(/^[^\p{L}\p{N}]+|(?<=[\p{L}\p{N}])[^\p{L}\p{N}]+$/gu, '');
