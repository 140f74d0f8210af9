import { PlaceError, problemSchema, type Problem, type ProblemKind } from '../model/place.ts';

/** Problems that may be gone by the next attempt. All others need the user. */
const PASSING: ReadonlySet<ProblemKind> = new Set([
  'no-answer',
  'timed-out',
  'server-error',
  'busy',
  'signed-out',
  'keys-locked',
  'stopped'
]);
/** Problems after which nobody knows whether the call took effect, or still will. */
const UNCERTAIN: ReadonlySet<ProblemKind> = new Set(['no-answer', 'timed-out', 'stopped']);

export const isPassing = (kind: ProblemKind): boolean => PASSING.has(kind);
export const isUncertain = (kind: ProblemKind): boolean => UNCERTAIN.has(kind);

/** Whether the key of the place is at fault, so that nothing goes there before there is another. */
export const isKeyProblem = ({ kind }: Pick<Problem, 'kind'>): boolean =>
  kind === 'key-refused' || kind === 'key-missing';

/** Waits between attempts, in milliseconds: each twice as long as the one before, up to `max`. */
export interface Backoff {
  first: number;
  max: number;
}

/**
 * Milliseconds to wait after a failed attempt: longer each time, and at least as long as the place
 * asked for.
 * @param attempts how many have failed, this one included
 * @param chance between 0 and 1, spreads the waits over the upper half of the interval
 */
export function waitAfter(
  attempts: number,
  { first, max }: Backoff,
  problem: Pick<Problem, 'retryAfter'>,
  chance = 1
): number {
  const growing = Math.min(max, first * 2 ** (attempts - 1));
  return Math.round(Math.max(growing * (0.5 + chance / 2), (problem.retryAfter ?? 0) * 1000));
}

/** Names of what IndexedDB and the file system of a browser throw when they refuse to write. */
const STORAGE_ERRORS =
  /^(?:QuotaExceeded|DatabaseClosed|OpenFailed|MissingAPI|InvalidState|NoModificationAllowed|NotReadable|Version|Abort|Transaction(?:Inactive)?|Bulk|Modify|Unknown|Constraint|Data|ReadOnly|Timeout)Error$/;

/**
 * Any error as a problem. What places throw carries its own; what the browser's storage throws is
 * a problem of this browser; anything else is a fault of this application.
 */
export function toProblem(error: unknown): Problem {
  if (error instanceof PlaceError) return error.problem;
  const name = error instanceof Error || error instanceof DOMException ? error.name : '';
  const detail = error instanceof Error ? error.message : String(error);
  const kind = STORAGE_ERRORS.test(name) ? 'storage' : 'internal';
  return problemSchema.parse({ kind, detail: detail.slice(0, 300) });
}
