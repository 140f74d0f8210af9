import type { Talk } from '../../text/talk.ts';
import type { Candidate } from './candidate.ts';
import { comparisonsIn } from './comparison.ts';
import { proceduresOf } from './steps.ts';

/**
 * Sentences that come together or not at all: the steps of a procedure, and the figures that are
 * compared with each other.
 * @returns for each such sentence all that it comes with, in order
 */
export function wholesOf(
  talk: Talk,
  candidates: readonly Candidate[]
): Map<Candidate, readonly Candidate[]> {
  const wholes = proceduresOf(talk, candidates);
  for (const figures of comparisonsIn(talk, candidates)) {
    const compared = [...new Set(figures.map((figure) => figure.from))];
    if (compared.some((candidate) => wholes.has(candidate))) continue;
    for (const candidate of compared) wholes.set(candidate, compared);
  }
  return wholes;
}
