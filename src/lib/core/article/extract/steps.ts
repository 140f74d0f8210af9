import { bare } from '../../text/bare.ts';
import type { Talk } from '../../text/talk.ts';
import type { Candidate } from './candidate.ts';

/** Steps in a row from which on they are a procedure. */
export const FEWEST_STEPS = 3;
/** Sentences that may stand between two steps of one procedure. */
const BETWEEN = 1;

/** A step that is told: it begins with what to do. */
export function isStep(talk: Talk, { words }: Candidate): boolean {
  const skip = /^(?:then|first|next|finally|now)$/.test(bare(words[0]?.text ?? '')) ? 1 : 0;
  const word = words[skip];
  if (!word || words.length >= 30 || /(?:ed|ing|[^s]s)$/.test(bare(word.text))) return false;
  const [tag, next] = [talk.tags[word.at], talk.tags[word.at + 1]];
  // "Wind the yarn": a noun right before an article is a verb after all.
  return tag === 'VERB' || (tag === 'NOUN' && next === 'DET');
}

/**
 * The procedures of a talk: steps in a row, at most one other sentence between two. With a step left
 * out nobody could follow it, so each comes whole or not at all.
 * @returns for each step the steps of its procedure, in order
 */
export function proceduresOf(
  talk: Talk,
  candidates: readonly Candidate[]
): Map<Candidate, readonly Candidate[]> {
  const procedures = new Map<Candidate, readonly Candidate[]>();
  let steps: Candidate[] = [];
  const close = () => {
    if (steps.length >= FEWEST_STEPS) for (const step of steps) procedures.set(step, steps);
    steps = [];
  };
  for (const candidate of candidates) {
    if (!isStep(talk, candidate)) continue;
    const last = steps.at(-1);
    const goesOn =
      last && candidate.chapter === last.chapter && candidate.index - last.index <= BETWEEN + 1;
    if (!goesOn) close();
    steps.push(candidate);
  }
  close();
  return procedures;
}
