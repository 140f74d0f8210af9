/** What a sentence begins with that goes on from the one before. */
export const LEANING_HEADS: ReadonlySet<string> = new Set(
  'er sie es das dies diese dieser dann deshalb darum dabei damit'.split(' ')
);
