/** What a sentence begins with that goes on from the one before. */
export const LEANING_HEADS: ReadonlySet<string> = new Set(
  'er sie es das dies diese dieser dann deshalb darum dabei damit'.split(' ')
);

/** What a text begins with that points at something outside it. */
export const POINTING_HEADS =
  /^(?:das|dies\w*|er|sie|es|dann|deshalb|dabei|damit|und|aber|oder|also)\b/i;
