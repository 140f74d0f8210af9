/** Words that ask. */
export const ASKING = /^(?:what|what's|how|how's|why|where|where's|when|who|who's|which|whose)$/;
/** Verbs that stand before their subject in a question. */
export const HELPING =
  /^(?:is|are|was|were|am|do|does|did|can|could|should|would|will|have|has|isn't|aren't|don't|doesn't|didn't|can't|won't|haven't|why've|what've)$/;
export const SUBJECT = /^(?:i|you|he|she|it|we|they|this|that|there|these|those|anyone|anybody)$/;

const SUBJECTS = 'i you he she it we they this that there these those';
const ASKS = new RegExp(
  `^(?:(?:so|and|but|now|okay|well) )?(?:(?:what|how|why|where|when|who|which)(?:'s|'re)? (?:\\w+ ){0,2}?(?:is|are|was|were|do|does|did|can|could|should|would|will|have|has|about|if|else|happens|kind|\\w+'s)\\b|what's |how's |(?:is|are|was|were|do|does|did|can|could|should|would|will|have|has|don't|doesn't|isn't|aren't|can't) (?:${SUBJECTS.replaceAll(' ', '|')}|the|your|my|our)\\b)`
);
const TAG = /\b(?:isn't|doesn't|don't|aren't|won't|can't|wasn't|didn't) (?:it|they|you|he|she|we)$/;
const TOLD = /^(?:what|how|where|when|why) (?:i|you|we|they|he|she|it|this|that|to)\b/;

/** Whether a sentence without its mark has the form of a question, by its first and last words. */
export function hasFormOfQuestion(bareSentence: string): boolean {
  if (TAG.test(bareSentence)) return true;
  const words = bareSentence.split(' ').length;
  return words <= 16 && ASKS.test(bareSentence) && !TOLD.test(bareSentence);
}
